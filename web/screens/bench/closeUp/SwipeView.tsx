import type { Grid } from '@inkwell/core/geometry';
import { useGesture } from '@use-gesture/react';
import { Button } from 'antd';
import { type KeyboardEvent, type ReactNode, useRef, useState } from 'react';
import { gestures } from '../../../stage/gestures.ts';

/** A panel has two stops: on it, and half-way to the next, where a hairline at the seam would show. */
const stopsPerPanel = 2;
/** So much turning of the wheel is one stop. */
const wheelStop = 60;

/**
 * A strip as the audience swipes it, one panel at a time, at the width at which it is shown: dragged, by the wheel, by
 * the arrow keys (Shift: half-way), or by its buttons.
 */
export function SwipeView(props: {
  grid: Grid;
  /** Of one panel, in CSS pixels. */
  width: number;
  /** The whole strip at `width` times its panels. */
  children: ReactNode;
}) {
  const { grid, width } = props;
  const last = (grid.columns - 1) * stopsPerPanel;
  const [stop, setStop] = useState(0);
  /** How far a hand has dragged it, in CSS pixels; null while none does. */
  const [dragged, setDragged] = useState<number | null>(null);
  const view = useRef<HTMLDivElement>(null);
  const turned = useRef(0);
  const at = Math.min(stop, last);
  const go = (to: number) => setStop(Math.min(last, Math.max(0, to)));
  const offset = (at * width) / stopsPerPanel - (dragged ?? 0);

  useGesture(
    {
      onDrag({ movement: [x], last }) {
        setDragged(last ? null : x);
        if (last) go(at - Math.round((x / width) * stopsPerPanel));
      },
      onWheel({ event }) {
        event.preventDefault();
        turned.current += event.deltaX + event.deltaY;
        const stops = Math.trunc(turned.current / wheelStop);
        turned.current -= stops * wheelStop;
        if (stops !== 0) setStop((before) => Math.min(last, Math.max(0, before + stops)));
      },
    },
    { target: view, ...gestures },
  );

  const onKeyDown = (event: KeyboardEvent) => {
    const direction = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (direction === 0) return;
    event.preventDefault();
    event.stopPropagation();
    go(at + direction * (event.shiftKey ? 1 : stopsPerPanel));
  };
  const panel = Math.floor(at / stopsPerPanel) + 1;
  const where = at % stopsPerPanel === 0 ? `Panel ${panel} of ${grid.columns}` : `Between ${panel} and ${panel + 1}`;
  return (
    <section className="swipe" aria-label="Swipe it" style={{ width }}>
      <div
        ref={view}
        className="swipe-view held"
        role="slider"
        tabIndex={0}
        aria-label="Arrow keys swipe, with Shift half-way"
        aria-valuemin={1}
        aria-valuemax={grid.columns}
        aria-valuenow={at / stopsPerPanel + 1}
        aria-valuetext={where}
        style={{ width, height: (width * grid.piece.height) / grid.piece.width }}
        onKeyDown={onKeyDown}
      >
        <div className="swipe-strip" data-held={dragged !== null} style={{ transform: `translateX(${-offset}px)` }}>
          {props.children}
        </div>
      </div>
      <div className="row spread swipe-foot">
        <Button size="small" disabled={at === 0} onClick={() => go(at - 1)} aria-label="Half a panel back">
          ‹
        </Button>
        <span className="small" role="status">
          {where}
        </span>
        <Button size="small" disabled={at === last} onClick={() => go(at + 1)} aria-label="Half a panel forward">
          ›
        </Button>
      </div>
    </section>
  );
}
