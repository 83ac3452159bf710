import { type Rect, rectToScreen, type Viewport, windowRect } from '@inkwell/core/geometry';
import type { Dimensions, Window } from '@inkwell/core/model';

/** A rectangle as Konva's shapes take it. */
export const placed = ({ left, top, width, height }: Rect) => ({ x: left, y: top, width, height });

/** A window as a Konva rectangle that turns about its middle. */
export function placedWindow(view: Viewport, window: Window, output: Dimensions) {
  const { left, top, width, height } = rectToScreen(view, windowRect(window, output));
  return {
    x: left + width / 2,
    y: top + height / 2,
    width,
    height,
    offsetX: width / 2,
    offsetY: height / 2,
    // Where the picture is turned clockwise in the frame, the frame lies turned the other way on the picture.
    rotation: -window.turn,
  };
}
