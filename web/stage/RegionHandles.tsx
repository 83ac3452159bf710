import {
  type Rect as Region,
  rectBetween,
  rectToScreen,
  rectWithin,
  toOriginal,
  type Viewport,
} from '@inkwell/core/geometry';
import type { Dimensions } from '@inkwell/core/model';
import { Rect } from 'react-konva';
import { palette } from '../theme/palette.ts';
import { useHitWidth } from './useHitWidth.ts';

const handleSide = 9;

/** A handle: which edges of the region it pulls. */
interface Handle {
  name: string;
  x: 'left' | 'right' | null;
  y: 'top' | 'bottom' | null;
  cursor: string;
}
const corners: Handle[] = [
  { name: 'top left', x: 'left', y: 'top', cursor: 'nwse-resize' },
  { name: 'top right', x: 'right', y: 'top', cursor: 'nesw-resize' },
  { name: 'bottom left', x: 'left', y: 'bottom', cursor: 'nesw-resize' },
  { name: 'bottom right', x: 'right', y: 'bottom', cursor: 'nwse-resize' },
];
const sides: Handle[] = [
  { name: 'left', x: 'left', y: null, cursor: 'ew-resize' },
  { name: 'right', x: 'right', y: null, cursor: 'ew-resize' },
  { name: 'top', x: null, y: 'top', cursor: 'ns-resize' },
  { name: 'bottom', x: null, y: 'bottom', cursor: 'ns-resize' },
];

/** Handles by which a region on the original is pulled: at its corners, and where asked for in the middle of its sides. */
export function RegionHandles(props: {
  view: Viewport;
  region: Region;
  original: Dimensions;
  /** A region is at least this many original pixels wide and high. */
  least: number;
  withSides?: boolean;
  onChange: (region: Region) => void;
  /** A movement has come to its end. */
  onRest: () => void;
  onCursor: (cursor: string) => void;
}) {
  const { view, region, original, least, withSides = false, onChange, onRest, onCursor } = props;
  const hit = useHitWidth(handleSide);
  const edges = {
    left: region.left,
    top: region.top,
    right: region.left + region.width,
    bottom: region.top + region.height,
  };
  return (withSides ? [...corners, ...sides] : corners).map(({ name, x, y, cursor }) => {
    const left = x ? edges[x] : (edges.left + edges.right) / 2;
    const top = y ? edges[y] : (edges.top + edges.bottom) / 2;
    const seen = rectToScreen(view, { left, top, width: 0, height: 0 });
    return (
      <Rect
        key={name}
        x={seen.left}
        y={seen.top}
        offsetX={handleSide / 2}
        offsetY={handleSide / 2}
        width={handleSide}
        height={handleSide}
        fill={palette.outline}
        stroke={palette.action}
        strokeWidth={1.5}
        hitStrokeWidth={hit}
        draggable
        onDragMove={({ target }) => {
          const pointer = target.getStage()?.getPointerPosition();
          if (!pointer) return;
          const to = toOriginal(view, pointer);
          const pulled = { ...edges };
          if (x) pulled[x] = Math.min(original.width, Math.max(0, to.x));
          if (y) pulled[y] = Math.min(original.height, Math.max(0, to.y));
          const between = rectBetween({ x: pulled.left, y: pulled.top }, { x: pulled.right, y: pulled.bottom });
          onChange(rectWithin(between, original, least));
        }}
        onDragEnd={onRest}
        onMouseEnter={() => onCursor(cursor)}
        onMouseLeave={() => onCursor('default')}
      />
    );
  });
}
