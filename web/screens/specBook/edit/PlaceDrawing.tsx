import './PlaceDrawing.css';
import { type Pulled, type Rect, snapArea } from '@inkwell/core/geometry';
import type { Area, Dimensions, Place } from '@inkwell/core/model';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, useRef } from 'react';
import { gestures } from '../../../stage/gestures.ts';
import { useRoom } from '../../../stage/useRoom.ts';
import { fingerTarget } from '../../../theme/antTheme.ts';
import { useFinger } from '../../../theme/useMedia.ts';

/** Which of a place's areas: one that is covered, by its number, or the part that is always shown. */
export type AreaKey = number | 'shown';

/** Of a place whose height is free, the middle of its range is drawn. */
export const drawnDimensions = ({ width, height }: Pick<Place, 'width' | 'height'>): Dimensions => ({
  width,
  height: typeof height === 'number' ? height : Math.round((height.min + height.max) / 2),
});

/** So near, in CSS pixels, an edge snaps to another one. */
const snapDistance = 7;
/** An area that is drawn anew is at least so wide and high, in CSS pixels: less was a press. */
const leastDrawn = 6;
const drawnHeight = 430;

interface Drawing {
  place: Place;
  chosen: AreaKey | null;
  onChoose: (key: AreaKey | null) => void;
  /** An area as it is moved. @param step the drag that this is a part of */
  onMove: (key: AreaKey, area: Area, step?: string) => void;
  onDraw: (rect: Rect) => void;
  onRemove: (key: AreaKey) => void;
}

/** A place drawn to scale: its mask, its pieces, and its areas, which can be drawn, moved and pulled. */
export function PlaceDrawing(props: Drawing) {
  const { place, chosen, onChoose, onDraw } = props;
  const holder = useRef<HTMLDivElement>(null);
  const room = useRoom(holder);
  const file = drawnDimensions(place);
  const { pieces, whole } = piecesDrawn(place, file);
  const scale = Math.min(Math.max(60, room.width - 2) / whole.width, drawnHeight / whole.height);
  const svg = useRef<SVGSVGElement>(null);
  const ghost = useRef<SVGRectElement>(null);
  const bind = useDrag(
    ({ first, last, xy: [x, y], memo, event }) => {
      if (first && event.target !== event.currentTarget) return null;
      if (memo === null) return null;
      const box = svg.current?.getBoundingClientRect();
      if (!box) return memo;
      const at = { x: (x - box.left) / scale, y: (y - box.top) / scale };
      const from = memo ?? at;
      const rect = {
        left: Math.min(from.x, at.x),
        top: Math.min(from.y, at.y),
        width: Math.abs(at.x - from.x),
        height: Math.abs(at.y - from.y),
      };
      for (const [name, value] of Object.entries({ x: rect.left, y: rect.top, ...sizes(rect) })) {
        ghost.current?.setAttribute(name, String(last ? 0 : value));
      }
      if (last) {
        if (rect.width * scale < leastDrawn || rect.height * scale < leastDrawn) onChoose(null);
        else onDraw(snapArea(rect, file, [], { x: 'both', y: 'both' }, 0));
      }
      return from;
    },
    { ...gestures.drag, filterTaps: false },
  );
  const others = (key: AreaKey) => areasOf(place).flatMap(([other, area]) => (other === key ? [] : [area]));
  return (
    <div ref={holder} className="place-drawing">
      <svg
        ref={svg}
        width={whole.width * scale}
        height={whole.height * scale}
        viewBox={`0 0 ${whole.width} ${whole.height}`}
        aria-label={`${place.name}, drawn to scale`}
      >
        {pieces.map(({ x, y }, index) => (
          <PieceShape key={`${x} ${y}`} place={place} file={file} x={x} y={y} scale={scale} isFirst={index === 0} />
        ))}
        <rect className="drawing-ground held" width={file.width} height={file.height} {...bind()} />
        {areasOf(place).map(([key, area]) => (
          <AreaOnDrawing
            key={key}
            id={key}
            area={area}
            file={file}
            scale={scale}
            others={others(key)}
            isChosen={chosen === key}
            {...props}
          />
        ))}
        <rect ref={ghost} className="drawing-ghost" />
      </svg>
      <p className="quiet small">
        Drag on the drawing to add a covered area. Drag an area or its corners; arrow keys move it by a pixel, with
        Shift by ten, with Alt its far corner.
      </p>
    </div>
  );
}

const sizes = ({ width, height }: Rect) => ({ width, height });

/** All areas of a place, the part that is shown first: it lies under the others. */
const areasOf = ({ covered, shownPart }: Pick<Place, 'covered' | 'shownPart'>): [AreaKey, Area][] => [
  ...(shownPart ? [['shown', shownPart] as [AreaKey, Area]] : []),
  ...covered.map((area, index): [AreaKey, Area] => [index, area]),
];

function PieceShape(props: { place: Place; file: Dimensions; x: number; y: number; scale: number; isFirst: boolean }) {
  const { place, file, x, y, scale, isFirst } = props;
  const radius = place.shape === 'circle' ? file.width / 2 : place.shape === 'rounded' ? file.width * 0.04 : 0;
  return (
    <rect
      className={isFirst ? 'drawing-piece' : 'drawing-piece drawing-other'}
      x={x + 0.5 / scale}
      y={y + 0.5 / scale}
      width={file.width - 1 / scale}
      height={file.height - 1 / scale}
      rx={radius}
      ry={place.shape === 'circle' ? file.height / 2 : radius}
      strokeWidth={1 / scale}
    />
  );
}

/** Where the pieces of a place lie, as many as are drawn, and how large all are together. */
function piecesDrawn({ group }: Place, { width, height }: Dimensions) {
  const columns = group?.kind === 'panels' ? 3 : (group?.columns ?? 1);
  const rows = group?.kind === 'block' ? group.rows : group?.kind === 'quilt' ? Math.min(2, group.maxRows) : 1;
  const gap = group && group.kind !== 'panels' ? group.gap * width : 0;
  const pieces = Array.from({ length: columns * rows }, (_, index) => ({
    x: (index % columns) * (width + gap),
    y: Math.floor(index / columns) * (height + gap),
  }));
  const whole = { width: columns * width + (columns - 1) * gap, height: rows * height + (rows - 1) * gap };
  return { pieces, whole };
}

const corners = [
  ['start', 'start'],
  ['end', 'start'],
  ['start', 'end'],
  ['end', 'end'],
] as const;
const handleSide = 11;

/** A circle stays one: its box is a square. */
const shaped = (area: Area, rect: Rect): Area =>
  area.shape === 'circle' ? { ...area, ...rect, height: rect.width } : { ...area, ...rect };

/** How far an arrow key moves. */
const arrows: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function AreaOnDrawing(
  props: Drawing & {
    id: AreaKey;
    area: Area;
    file: Dimensions;
    scale: number;
    others: Area[];
    isChosen: boolean;
  },
) {
  const { id, area, file, scale, others, isChosen, onChoose, onMove, onRemove } = props;
  const moved = (from: Area, by: [number, number], pulled: Pulled): Area => {
    const [dx, dy] = by.map((pixels) => pixels / scale) as [number, number];
    const start = (edge: Pulled['x'], delta: number) => (edge === 'both' || edge === 'start' ? delta : 0);
    const grown = (edge: Pulled['x'], delta: number) => (edge === 'end' ? delta : edge === 'start' ? -delta : 0);
    const rect = {
      left: from.left + start(pulled.x, dx),
      top: from.top + start(pulled.y, dy),
      width: Math.max(1, from.width + grown(pulled.x, dx)),
      height: Math.max(1, from.height + grown(pulled.y, dy)),
    };
    return shaped(from, snapArea(rect, file, others, pulled, snapDistance / scale));
  };
  const bind = useDrag(({ first, movement, memo, args: [pulled] }) => {
    if (first) onChoose(id);
    const drag: { from: Area; step: string } = memo ?? { from: area, step: crypto.randomUUID() };
    onMove(id, moved(drag.from, movement, pulled as Pulled), drag.step);
    return drag;
  }, gestures.drag);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      onRemove(id);
      return;
    }
    const by = arrows[event.key];
    if (!by) return;
    event.preventDefault();
    const [dx, dy] = by.map((one) => one * (event.shiftKey ? 10 : 1)) as [number, number];
    const next = event.altKey
      ? { ...area, width: Math.max(1, area.width + dx), height: Math.max(1, area.height + dy) }
      : { ...area, left: area.left + dx, top: area.top + dy };
    onMove(id, shaped(next, next));
  };
  const name = id === 'shown' ? `Always shown: ${area.reason}` : `Covered: ${area.reason}`;
  const className = `drawing-area held ${id === 'shown' ? 'drawing-shown' : 'drawing-covered'}${isChosen ? ' drawing-chosen' : ''}`;
  const shape = { className, strokeWidth: (isChosen ? 2 : 1) / scale, ...bind({ x: 'both', y: 'both' }) };
  const isFinger = useFinger();
  const side = (isFinger ? fingerTarget : handleSide) / scale;
  // What is too small for a finger can be taken hold of beside it as well.
  const room = (length: number) => (isFinger ? Math.max(0, (fingerTarget / scale - length) / 2) : 0);
  const hit = { x: room(area.width), y: room(area.height) };
  return (
    // biome-ignore lint/a11y/useSemanticElements: there is no button in a drawing
    <g
      role="button"
      tabIndex={0}
      aria-label={name}
      aria-pressed={isChosen}
      onFocus={() => onChoose(id)}
      onKeyDown={onKeyDown}
    >
      <rect
        className="drawing-hit held"
        x={area.left - hit.x}
        y={area.top - hit.y}
        width={area.width + 2 * hit.x}
        height={area.height + 2 * hit.y}
        {...bind({ x: 'both', y: 'both' })}
      />
      {area.shape === 'circle' ? (
        <circle {...shape} cx={area.left + area.width / 2} cy={area.top + area.width / 2} r={area.width / 2} />
      ) : (
        <rect {...shape} x={area.left} y={area.top} width={area.width} height={area.height} />
      )}
      {isChosen &&
        corners.map(([x, y]) => (
          <rect
            key={`${x} ${y}`}
            className={`drawing-handle held drawing-${x === y ? 'nwse' : 'nesw'}`}
            x={area.left + (x === 'end' ? area.width : 0) - side / 2}
            y={area.top + (y === 'end' ? area.height : 0) - side / 2}
            width={side}
            height={side}
            strokeWidth={1.5 / scale}
            {...bind({ x, y })}
          />
        ))}
    </g>
  );
}
