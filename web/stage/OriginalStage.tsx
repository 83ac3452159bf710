import {
  type Bounds,
  cornerOnOriginal,
  fitViewport,
  type Point,
  pictureBox,
  type Rect as Region,
  rectBetween,
  rectToScreen,
  toOriginal,
  toScreen,
  type Viewport,
  zoomAbout,
} from '@inkwell/core/geometry';
import type { Original, Window } from '@inkwell/core/model';
import { usePinch } from '@use-gesture/react';
import type Konva from 'konva';
import { type ReactNode, useMemo, useRef, useState } from 'react';
import { Group, Image, Layer, Line, Rect, Shape, Stage } from 'react-konva';
import { palette } from '../theme/palette.ts';
import { ChosenOutline } from './ChosenOutline.tsx';
import { gestures, wheelFactor } from './gestures.ts';
import { MarksLayer } from './MarksLayer.tsx';
import type { Outline } from './outline.ts';
import { placed, placedWindow } from './placed.ts';
import { RegionHandles } from './RegionHandles.tsx';
import { smallestTrim, type Tool } from './tools.ts';
import { useLoadedImage } from './useLoadedImage.ts';
import { useRoom } from './useRoom.ts';

const margin = 18;
const veil = 0.5;
/** What is drawn shorter than this, in screen pixels, was a click. */
const shortestDrag = 6;

/**
 * The original with the outlines of all frames and its marks. The chosen outline can be dragged, pulled at its corners,
 * tightened and loosened; a drag beside it draws a mark, as does any drag while the tool is one that draws.
 */
export function OriginalStage(props: {
  original: Original;
  imageUrl: string;
  outlines: readonly Outline[];
  chosen: (Outline & { bounds: Bounds }) | undefined;
  tool: Tool;
  selectedMark: string | null;
  onChoose: (id: string) => void;
  onMove: (window: Window) => void;
  /** A movement has come to its end. */
  onRest: () => void;
  /** It has, unless another step of it follows soon. */
  onRestSoon: () => void;
  onDraw: (tool: Tool, region: Region, from: Point, to: Point) => void;
  onSelectMark: (id: string | null) => void;
  onChangeMark: (id: string, region: Region) => void;
  /** Where a trim is being chosen, its edges can be pulled. */
  onTrim: ((region: Region) => void) | null;
  /** What lies over the picture beside what is drawn. */
  over?: (view: Viewport) => ReactNode;
}) {
  const { original, outlines, chosen, tool, onChoose, onMove, onRest } = props;
  const holder = useRef<HTMLDivElement>(null);
  const room = useRoom(holder);
  const image = useLoadedImage(props.imageUrl);
  const view = useMemo(() => fitViewport(original, room, margin), [original, room]);
  const whole = rectToScreen(view, { left: 0, top: 0, width: original.width, height: original.height });
  const trimmed = pictureBox(original);
  const [cursor, setCursor] = useState('default');
  const [drawn, setDrawn] = useState<{ from: Point; to: Point } | null>(null);

  const onWheel = ({ evt, target }: Konva.KonvaEventObject<WheelEvent>) => {
    evt.preventDefault();
    const pointer = target.getStage()?.getPointerPosition();
    if (!chosen || !pointer) return;
    const factor = wheelFactor(evt);
    onMove(zoomAbout(chosen.window, factor, toOriginal(view, pointer), chosen.bounds, chosen.output));
    props.onRestSoon();
  };

  const surface = useRef<Konva.Stage>(null);
  // Two fingers tighten and loosen the chosen window about what lies between them.
  usePinch(
    ({ origin: [x, y], movement: [times], first, last, memo }) => {
      const edge = holder.current?.getBoundingClientRect();
      if (!chosen || !edge) return memo;
      const start: { window: Window; anchor: Point } = memo ?? {
        window: chosen.window,
        anchor: toOriginal(view, { x: x - edge.left, y: y - edge.top }),
      };
      if (first) {
        // What the first finger had begun.
        setDrawn(null);
        for (const dragged of surface.current?.find((node: Konva.Node) => node.isDragging()) ?? []) dragged.stopDrag();
      }
      onMove(zoomAbout(start.window, 1 / times, start.anchor, chosen.bounds, chosen.output));
      if (last) onRest();
      return start;
    },
    { target: holder, eventOptions: gestures.eventOptions, ...gestures.pinch },
  );

  /** Where the pointer is, on the original and kept inside of it. */
  const pointed = (stage: Konva.Stage | null): Point | null => {
    const pointer = stage?.getPointerPosition();
    if (!pointer) return null;
    const { x, y } = toOriginal(view, pointer);
    return { x: Math.min(original.width, Math.max(0, x)), y: Math.min(original.height, Math.max(0, y)) };
  };
  const onPointerDown = ({ evt, target }: Konva.KonvaEventObject<PointerEvent>) => {
    const stage = target.getStage();
    const at = pointed(stage);
    if (!at || !evt.isPrimary || (tool === 'frame' && target !== stage)) return;
    if (evt.target instanceof Element) evt.target.setPointerCapture(evt.pointerId);
    setDrawn({ from: at, to: at });
  };
  const onPointerMove = ({ target }: Konva.KonvaEventObject<PointerEvent>) => {
    const to = drawn && pointed(target.getStage());
    if (to) setDrawn({ from: drawn.from, to });
  };
  const onPointerUp = () => {
    if (!drawn) return;
    setDrawn(null);
    const { from, to } = drawn;
    const length = Math.hypot(from.x - to.x, from.y - to.y) * view.scale;
    if (length < shortestDrag) props.onSelectMark(null);
    else props.onDraw(tool, rectBetween(from, to), from, to);
  };

  return (
    <div
      ref={holder}
      style={{ position: 'absolute', inset: 0, cursor: tool === 'frame' ? cursor : 'crosshair' }}
      className="held"
      data-testid="stage"
      data-scale={view.scale}
      data-left={view.offset.x}
      data-top={view.offset.y}
    >
      <Stage
        ref={surface}
        width={room.width}
        height={room.height}
        onWheel={onWheel}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
      >
        <Layer listening={false}>
          {image && <Image image={image} {...placed(whole)} />}
          {original.trim && <Veil around={rectToScreen(view, original.trim)} whole={whole} strength={0.7} />}
          {chosen && <WindowVeil whole={whole} corners={windowCorners(chosen).map((at) => toScreen(view, at))} />}
        </Layer>
        <Layer listening={tool === 'frame' && !props.onTrim}>
          {outlines
            .filter((one) => one.id !== chosen?.id)
            .map((one) => (
              <Rect
                key={one.id}
                {...placedWindow(view, one.window, one.output)}
                stroke={palette.outline}
                opacity={0.55}
                strokeWidth={1}
                hitStrokeWidth={9}
                fillEnabled={false}
                onClick={() => onChoose(one.id)}
                onTap={() => onChoose(one.id)}
                onMouseEnter={() => setCursor('pointer')}
                onMouseLeave={() => setCursor('default')}
              />
            ))}
          {chosen && (
            <ChosenOutline
              view={view}
              bounds={chosen.bounds}
              chosen={chosen}
              marks={original.marks}
              onMove={onMove}
              onRest={onRest}
              onCursor={setCursor}
            />
          )}
        </Layer>
        <Layer listening={tool === 'frame'}>
          <MarksLayer
            view={view}
            original={original}
            marks={original.marks}
            selectedId={props.selectedMark}
            onSelect={props.onSelectMark}
            onChange={props.onChangeMark}
            onRest={onRest}
            onCursor={setCursor}
          />
        </Layer>
        {props.onTrim && (
          <Layer>
            <Rect
              {...placed(rectToScreen(view, trimmed))}
              stroke={palette.action}
              strokeWidth={1.5}
              listening={false}
            />
            <RegionHandles
              view={view}
              region={trimmed}
              original={original}
              least={smallestTrim}
              withSides
              onChange={props.onTrim}
              onRest={() => setCursor('default')}
              onCursor={setCursor}
            />
          </Layer>
        )}
        <Layer listening={false}>
          {drawn && <Drawn tool={tool} from={toScreen(view, drawn.from)} to={toScreen(view, drawn.to)} />}
        </Layer>
      </Stage>
      {!drawn && props.over?.(view)}
    </div>
  );
}

const windowCorners = ({ window, output }: Outline): Point[] =>
  (['top left', 'bottom left', 'bottom right', 'top right'] as const).map((corner) =>
    cornerOnOriginal(window, corner, output),
  );

/** Darkens what lies outside of the window. */
function WindowVeil({ whole, corners, strength = veil }: { whole: Region; corners: Point[]; strength?: number }) {
  const { left, top, width, height } = whole;
  return (
    <Group clipX={left} clipY={top} clipWidth={width} clipHeight={height}>
      <Shape
        fill={palette.outlineEdge}
        opacity={strength}
        fillRule="evenodd"
        sceneFunc={(context, shape) => {
          context.beginPath();
          context.rect(left, top, width, height);
          for (const [at, { x, y }] of corners.entries()) {
            if (at === 0) context.moveTo(x, y);
            else context.lineTo(x, y);
          }
          context.closePath();
          context.fillShape(shape);
        }}
      />
    </Group>
  );
}

function Veil({ around, whole, strength }: { around: Region; whole: Region; strength: number }) {
  const { left, top, width, height } = around;
  const corners = [
    { x: left, y: top },
    { x: left, y: top + height },
    { x: left + width, y: top + height },
    { x: left + width, y: top },
  ];
  return <WindowVeil whole={whole} corners={corners} strength={strength} />;
}

/** What is being drawn: a line that is to be level, or the region of a mark. */
function Drawn({ tool, from, to }: { tool: Tool; from: Point; to: Point }) {
  if (tool === 'level')
    return <Line points={[from.x, from.y, to.x, to.y]} stroke={palette.outline} strokeWidth={2} dash={[8, 5]} />;
  const colour = tool === 'avoid' ? palette.markAvoid : palette.markKeep;
  return <Rect {...placed(rectBetween(from, to))} stroke={colour} strokeWidth={2} dash={[6, 4]} />;
}
