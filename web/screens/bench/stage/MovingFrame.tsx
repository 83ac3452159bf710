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
import { type PointerEvent, type ReactNode, useEffect, useRef } from 'react';
import { snapDistance } from '../../../stage/ChosenOutline.tsx';
import { wheelFactor } from '../../../stage/wheel.ts';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';

/** A frame under which the picture is dragged (snapping, unless Alt is held), tightened and loosened. */
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
  const held = useRef<{ from: Point; window: Window } | null>(null);
  /** Pixels of the content area for one on the screen, each way. */
  const scale = { x: output.width / width, y: (output.width / width) * settings.stretch };
  /** What of the frame on the screen the window does not fill, at its right: a closing panel. */
  const closing = hasClosing(one.at.place, settings) ? one.at.place.width / scale.x : 0;
  const bounds = () => boundsOf(original, store.getState().settings.frames[frame.id]?.backing ?? null);

  const onPointerDown = (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { from: { x: event.clientX, y: event.clientY }, window };
  };
  const onPointerMove = (event: PointerEvent) => {
    if (!held.current) return;
    const { from, window: start } = held.current;
    // The picture follows the hand, so the window goes the other way.
    const by = { x: (from.x - event.clientX) * scale.x, y: (from.y - event.clientY) * scale.y };
    const dragged = nudge(start, by, bounds(), contentArea);
    const snapped = event.altKey
      ? null
      : snapWindow(dragged, original.marks, bounds(), contentArea, snapDistance * scale.x);
    props.onSnap(snapped?.snaps ?? []);
    store.move(frame.id, snapped?.window ?? dragged);
  };
  const onPointerUp = () => {
    held.current = null;
    props.onSnap([]);
    store.commitMove();
  };

  const latest = useRef({ window, bounds, scale, contentArea, closing });
  latest.current = { window, bounds, scale, contentArea, closing };
  useEffect(() => {
    const box = element.current;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const { window, bounds, scale, contentArea, closing } = latest.current;
      const edge = box?.getBoundingClientRect();
      if (!edge) return;
      const fromMiddle = {
        x: event.clientX - edge.left - (edge.width - closing) / 2,
        y: event.clientY - edge.top - edge.height / 2,
      };
      const anchor = frameToOriginal(window, contentArea, {
        x: contentArea.width / 2 + fromMiddle.x * scale.x,
        y: contentArea.height / 2 + fromMiddle.y * scale.y,
      });
      store.move(frame.id, zoomAbout(window, wheelFactor(event), anchor, bounds(), contentArea));
      store.commitMoveSoon();
    };
    // React listens to the wheel passively, which would scroll the page as well.
    box?.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      box?.removeEventListener('wheel', onWheel);
    };
  }, [frame.id, store]);

  return (
    <div
      ref={element}
      className="close-up-frame"
      data-testid="close-up"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
    >
      {props.children}
    </div>
  );
}
