import { useDrag } from '@use-gesture/react';
import { useRef } from 'react';
import { gestures } from '../stage/gestures.ts';

/** A line that is dragged, or moved by arrow keys, between one picture on its left and another on its right. */
export function Divider(props: { at: number; width: number; between: string; onMove: (at: number) => void }) {
  const { at, width, between, onMove } = props;
  const line = useRef<HTMLDivElement>(null);
  const move = (to: number) => onMove(Math.min(1, Math.max(0, to)));
  useDrag(
    ({ xy: [x] }) => {
      const room = line.current?.parentElement?.getBoundingClientRect();
      if (room) move((x - room.left) / width);
    },
    { target: line, ...gestures.drag },
  );
  return (
    <div
      ref={line}
      className="compare-divider held"
      role="slider"
      tabIndex={0}
      aria-label={`Divider between ${between}`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(at * 100)}
      style={{ left: at * width }}
      onKeyDown={(event) => {
        const by = event.key === 'ArrowLeft' ? -0.02 : event.key === 'ArrowRight' ? 0.02 : 0;
        if (by === 0) return;
        event.preventDefault();
        event.stopPropagation();
        move(at + by);
      }}
    />
  );
}
