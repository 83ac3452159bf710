import { frameToOriginal, type Point, toScreen, type Viewport } from '@inkwell/core/geometry';
import type { Measured } from '@inkwell/core/model';
import { LetterLayers } from '../../../parts/pictures/LetterLayers.tsx';
import { type BenchFrame, type FrameState, useFrameState } from '../frames/benchFrame.ts';
import { ItemHandles } from './ItemHandles.tsx';

/** The items of the chosen frame where they lie on its original, to be dragged there. */
export function StageItems(props: {
  view: Viewport;
  one: BenchFrame;
  measured: readonly Measured[] | undefined;
  onChoose: (itemId: string) => void;
}) {
  const { view, one, measured, onChoose } = props;
  const state = useFrameState(one, measured);
  if (!state?.lettering) return null;
  const { lettering, output } = state;
  const placed = placedOn(view, state);
  return (
    <ItemHandles one={one} state={state} width={placed.width} placed={placed} onChoose={onChoose}>
      <LetterLayers lettering={lettering} output={output} />
    </ItemHandles>
  );
}

/**
 * How a frame lies on the stage: turned, mirrored and stretched as its window is on the original.
 *
 * @returns the width at which it is about as large as there, in CSS pixels, what moves it there from that, and the way back
 */
function placedOn(view: Viewport, { window, contentArea, margins, output, settings }: FrameState) {
  const at = (x: number, y: number): Point =>
    toScreen(
      view,
      frameToOriginal(window, contentArea, { x: x - margins.left, y: (y - margins.top) * settings.stretch }),
    );
  const [corner, right, below] = [at(0, 0), at(output.width, 0), at(0, output.height)];
  const width = Math.hypot(right.x - corner.x, right.y - corner.y);
  const height = (width * output.height) / output.width;
  const [a, b] = [(right.x - corner.x) / width, (right.y - corner.y) / width];
  const [c, d] = [(below.x - corner.x) / height, (below.y - corner.y) / height];
  const area = a * d - b * c;
  return {
    width,
    transform: `matrix(${a}, ${b}, ${c}, ${d}, ${corner.x}, ${corner.y})`,
    toFrame: ([x, y]: [number, number]): [number, number] => [(d * x - c * y) / area, (a * y - b * x) / area],
  };
}
