import {
  type Bounds,
  type Corner,
  clampWindow,
  cornerOnOriginal,
  dragCorner,
  frameToOriginal,
  type Grid,
  originalToFrame,
  type Rect as Region,
  type Snap,
  seamsOf,
  snapWindow,
  toOriginal,
  toScreen,
  type Viewport,
  wholeDimensions,
} from '@inkwell/core/geometry';
import type { Window } from '@inkwell/core/model';
import type Konva from 'konva';
import { useState } from 'react';
import { Line, Rect, Text } from 'react-konva';
import { palette } from '../theme/palette.ts';
import type { Outline } from './outline.ts';
import { placedWindow } from './placed.ts';
import { useHitWidth } from './useHitWidth.ts';

const handle = 11;
const corners: Corner[] = ['top left', 'top right', 'bottom left', 'bottom right'];

/** So near, in screen pixels, a moved window snaps. */
export const snapDistance = 6;

/**
 * The strong outline of the chosen frame: dragged it moves and snaps to thirds, middles, marks and the picture's edges
 * (not while Alt is held), pulled at a corner it tightens and loosens.
 */
export function ChosenOutline(props: {
  view: Viewport;
  bounds: Bounds;
  chosen: Outline;
  /** What windows snap to, besides the picture. */
  marks: readonly Region[];
  onMove: (window: Window) => void;
  onRest: () => void;
  onCursor: (cursor: string) => void;
}) {
  const { view, bounds, chosen, marks, onMove, onRest, onCursor } = props;
  const hit = useHitWidth(handle);
  const [snaps, setSnaps] = useState<readonly Snap[]>([]);
  const { window, output } = chosen;
  const shape = placedWindow(view, window, output);

  const onDrag = ({ target, evt }: Konva.KonvaEventObject<DragEvent>) => {
    const middle = toOriginal(view, target.position());
    const dragged = clampWindow({ ...window, centreX: middle.x, centreY: middle.y }, bounds, output);
    const distance = (snapDistance * output.width) / (window.span * view.scale);
    const snapped = evt.altKey ? null : snapWindow(dragged, marks, bounds, output, distance);
    const moved = snapped?.window ?? dragged;
    setSnaps(snapped?.snaps ?? []);
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
        onDragEnd={() => {
          setSnaps([]);
          onRest();
        }}
        onMouseEnter={() => onCursor('move')}
        onMouseLeave={() => onCursor('default')}
      />
      {chosen.grid && <Seams view={view} chosen={chosen} grid={chosen.grid} />}
      {chosen.grid && <SeamDistances view={view} chosen={chosen} grid={chosen.grid} marks={marks} />}
      {snaps.map(({ axis, at }) => {
        const ends = [0, 1].map((end) => {
          const across = { x: at * output.width, y: end * output.height };
          const down = { x: end * output.width, y: at * output.height };
          return toScreen(view, frameToOriginal(window, output, axis === 'x' ? across : down));
        });
        return (
          <Line
            key={`${axis} ${at}`}
            points={ends.flatMap(({ x, y }) => [x, y])}
            stroke={palette.markKeep}
            strokeWidth={1.5}
            listening={false}
          />
        );
      })}
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
            hitStrokeWidth={hit}
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

/** The seams of a strip or block, on the original. */
function Seams({ view, chosen, grid }: { view: Viewport; chosen: Outline; grid: Grid }) {
  const { window, output } = chosen;
  const whole = wholeDimensions(grid);
  // A stretched frame's content area is taller than its file.
  const down = output.height / whole.height;
  return seamsOf(grid).map(({ axis, start, width }) => {
    const at = start + width / 2;
    const ends = (axis === 'x' ? [0, whole.height] : [0, whole.width]).map((end) => {
      const point = axis === 'x' ? { x: at, y: end * down } : { x: end, y: at * down };
      return toScreen(view, frameToOriginal(window, output, point));
    });
    return (
      <Line
        key={`${axis} ${start}`}
        points={ends.flatMap(({ x, y }) => [x, y])}
        stroke={palette.outline}
        strokeWidth={Math.max(1, (width * window.span * view.scale) / output.width)}
        dash={[6, 4]}
        listening={false}
      />
    );
  });
}

/** Marks nearer to a seam than this part of a piece say how near. */
const nearSeam = 0.2;

/** How far marks lie from the seams that they are near, in pixels of the files. */
function SeamDistances(props: { view: Viewport; chosen: Outline; grid: Grid; marks: readonly Region[] }) {
  const { view, chosen, grid, marks } = props;
  const { window, output } = chosen;
  return marks.flatMap((mark) => {
    const corners = [mark.left, mark.left + mark.width].map((x) =>
      originalToFrame(window, output, { x, y: mark.top + mark.height / 2 }),
    );
    const [start, end] = [Math.min(...corners.map(({ x }) => x)), Math.max(...corners.map(({ x }) => x))];
    const distances = seamsOf(grid).flatMap((seam) =>
      seam.axis === 'x' ? [Math.max(seam.start - end, start - seam.start - seam.width)] : [],
    );
    const nearest = Math.min(...distances);
    if (!(nearest < grid.piece.width * nearSeam) || end < 0 || start > output.width) return [];
    const at = toScreen(view, { x: mark.left, y: mark.top + mark.height });
    return [
      <Text
        key={`${mark.left} ${mark.top} ${mark.width}`}
        x={at.x + 3}
        y={at.y + 4}
        text={nearest >= 0 ? `${Math.round(nearest)} px to the seam` : 'cut by a seam'}
        fontSize={11}
        fontFamily="Public Sans Variable"
        fill={nearest >= 0 ? palette.outline : palette.markAvoid}
        stroke={palette.outlineEdge}
        strokeWidth={3}
        fillAfterStrokeEnabled
        listening={false}
      />,
    ];
  });
}
