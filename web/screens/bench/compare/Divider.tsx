/** A line that is dragged, or moved by arrow keys, between one picture on its left and another on its right. */
export function Divider(props: { at: number; width: number; between: string; onMove: (at: number) => void }) {
  const { at, width, between, onMove } = props;
  const move = (to: number) => onMove(Math.min(1, Math.max(0, to)));
  return (
    <div
      className="compare-divider"
      role="slider"
      tabIndex={0}
      aria-label={`Divider between ${between}`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(at * 100)}
      style={{ left: at * width }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        const room = event.currentTarget.parentElement?.getBoundingClientRect();
        if (room && event.buttons === 1) move((event.clientX - room.left) / width);
      }}
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
