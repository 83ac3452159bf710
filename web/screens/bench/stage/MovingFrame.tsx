import {
  boundsOf,
  frameToOriginal,
  hasClosing,
  nudge,
  type Point,
  type Snap,
  snapWindow,
  zoomAbout,
} from '@inkwell/core/geometry';
import type { Window } from '@inkwell/core/model';
import { useGesture } from '@use-gesture/react';
import { type ReactNode, useRef } from 'react';
import { snapDistance } from '../../../stage/ChosenOutline.tsx';
import { gestures, wheelFactor } from '../../../stage/gestures.ts';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';

/** A frame under which the picture is dragged (snapping, unless Alt is held), tightened and loosened by the wheel or by two fingers. */
export function MovingFrame(props: {
  one: BenchFrame;
  state: FrameState;
  width: number;
  /** On which lines of the frame something came to lie. */
  onSnap: (snaps: readonly Snap[]) => void;
  children: ReactNode;
}) {
  const { one, state, width } = props;
  const { window, contentArea, settings, output } = state;
  const { original, frame } = one;
  const store = useBenchStore();
  const element = useRef<HTMLDivElement>(null);
  /** Pixels of the content area for one on the screen, each way. */
  const scale = { x: output.width / width, y: (output.width / width) * settings.stretch };
  /** What of the frame on the screen the window does not fill, at its right: a closing panel. */
  const closing = hasClosing(one.at.place, settings) ? one.at.place.width / scale.x : 0;
  const bounds = () => boundsOf(original, store.getState().settings.frames[frame.id]?.backing ?? null);

  /** The point of the picture that lies under a point of the page. */
  const pictureAt = (clientX: number, clientY: number): Point | null => {
    const edge = element.current?.getBoundingClientRect();
    if (!edge) return null;
    const fromMiddle = {
      x: clientX - edge.left - (edge.width - closing) / 2,
      y: clientY - edge.top - edge.height / 2,
    };
    return frameToOriginal(window, contentArea, {
      x: contentArea.width / 2 + fromMiddle.x * scale.x,
      y: contentArea.height / 2 + fromMiddle.y * scale.y,
    });
  };

  useGesture(
    {
      onDrag({ movement: [x, y], first, last, altKey, pinching, cancel, memo }) {
        const start: Window = memo ?? window;
        if (pinching) {
          props.onSnap([]);
          cancel();
          return start;
        }
        // The picture follows the hand, so the window goes the other way.
        const dragged = nudge(start, { x: -x * scale.x, y: -y * scale.y }, bounds(), contentArea);
        const snapped = altKey
          ? null
          : snapWindow(dragged, original.marks, bounds(), contentArea, snapDistance * scale.x);
        if (!first || x !== 0 || y !== 0) store.move(frame.id, snapped?.window ?? dragged);
        props.onSnap(last ? [] : (snapped?.snaps ?? []));
        if (last) store.commitMove();
        return start;
      },
      onPinch({ origin: [x, y], movement: [times], last, memo }) {
        const start: { window: Window; anchor: Point | null } = memo ?? { window, anchor: pictureAt(x, y) };
        const { window: before, anchor } = start;
        if (anchor) store.move(frame.id, zoomAbout(before, 1 / times, anchor, bounds(), contentArea));
        if (last) store.commitMove();
        return start;
      },
      onWheel({ event }) {
        event.preventDefault();
        const anchor = pictureAt(event.clientX, event.clientY);
        if (!anchor) return;
        store.move(frame.id, zoomAbout(window, wheelFactor(event), anchor, bounds(), contentArea));
        store.commitMoveSoon();
      },
    },
    { target: element, ...gestures },
  );

  return (
    <div ref={element} className="close-up-frame held" data-testid="close-up">
      {props.children}
    </div>
  );
}
