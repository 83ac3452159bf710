import {
  type Bounds,
  type Corner,
  clampWindow,
  cornerOnOriginal,
  dragCorner,
  toOriginal,
  toScreen,
  type Viewport,
} from '@inkwell/core/geometry';
import type { Window } from '@inkwell/core/model';
import type Konva from 'konva';
import { Rect } from 'react-konva';
import { palette } from '../theme/palette.ts';
import type { Outline } from './outline.ts';
import { placedWindow } from './placed.ts';

const handle = 11;
const corners: Corner[] = ['top left', 'top right', 'bottom left', 'bottom right'];

/** The strong outline of the chosen frame: dragged it moves, pulled at a corner it tightens and loosens. */
export function ChosenOutline(props: {
  view: Viewport;
  bounds: Bounds;
  chosen: Outline;
  onMove: (window: Window) => void;
  onRest: () => void;
  onCursor: (cursor: string) => void;
}) {
  const { view, bounds, chosen, onMove, onRest, onCursor } = props;
  const { window, output } = chosen;
  const shape = placedWindow(view, window, output);

  const onDrag = ({ target }: Konva.KonvaEventObject<DragEvent>) => {
    const middle = toOriginal(view, target.position());
    const moved = clampWindow({ ...window, centreX: middle.x, centreY: middle.y }, bounds, output);
    target.position(toScreen(view, { x: moved.centreX, y: moved.centreY }));
    onMove(moved);
  };
  const onCorner =
    (corner: Corner) =>
    ({ target }: Konva.KonvaEventObject<DragEvent>) => {
      const pointer = target.getStage()?.getPointerPosition();
      if (!pointer) return;
      const pulled = dragCorner(window, corner, toOriginal(view, pointer), bounds, output);
      target.position(toScreen(view, cornerOnOriginal(pulled, corner, output)));
      onMove(pulled);
    };

  return (
    <>
      <Rect {...shape} stroke={palette.outlineEdge} strokeWidth={4} opacity={0.55} listening={false} />
      <Rect
        {...shape}
        stroke={palette.outline}
        strokeWidth={2}
        fill="transparent"
        draggable
        onDragMove={onDrag}
        onDragEnd={onRest}
        onMouseEnter={() => onCursor('move')}
        onMouseLeave={() => onCursor('default')}
      />
      {corners.map((corner) => {
        const at = toScreen(view, cornerOnOriginal(window, corner, output));
        const falling = (corner === 'top left' || corner === 'bottom right') !== window.mirror;
        return (
          <Rect
            key={corner}
            {...at}
            offsetX={handle / 2}
            offsetY={handle / 2}
            width={handle}
            height={handle}
            rotation={-window.turn}
            fill={palette.outline}
            stroke={palette.selection}
            strokeWidth={1.5}
            hitStrokeWidth={14}
            draggable
            onDragMove={onCorner(corner)}
            onDragEnd={onRest}
            onMouseEnter={() => onCursor(falling ? 'nwse-resize' : 'nesw-resize')}
            onMouseLeave={() => onCursor('default')}
          />
        );
      })}
    </>
  );
}
