import {
  type Corner,
  clampWindow,
  dragCorner,
  fitViewport,
  rectToScreen,
  toOriginal,
  windowAt,
  windowRect,
  zoomAbout,
} from '@inkwell/core/geometry';
import type { Dimensions, Original, Window } from '@inkwell/core/model';
import type Konva from 'konva';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Image, Layer, Rect, Shape, Stage } from 'react-konva';
import { palette } from '../theme/palette.ts';
import { useLoadedImage } from './useLoadedImage.ts';
import { useRoom } from './useRoom.ts';

export interface Outline {
  id: string;
  window: Window;
  output: Dimensions;
}

const margin = 18;
const handle = 11;
const corners: Corner[] = ['top left', 'top right', 'bottom left', 'bottom right'];
/** How much a turn of the wheel tightens or loosens. */
const wheelStrength = 0.0011;
const veil = 0.5;

/** The original with the outlines of all frames on it. The chosen one can be dragged, pulled at its corners, tightened and loosened. */
export function OriginalStage(props: {
  original: Original;
  imageUrl: string;
  outlines: readonly Outline[];
  chosen: Outline | undefined;
  onChoose: (id: string) => void;
  onMove: (window: Window) => void;
  /** A movement has come to its end. */
  onRest: () => void;
}) {
  const { original, outlines, chosen, onChoose, onMove, onRest } = props;
  const holder = useRef<HTMLDivElement>(null);
  const room = useRoom(holder);
  const image = useLoadedImage(props.imageUrl);
  const view = useMemo(() => fitViewport(original, room, margin), [original, room]);
  const whole = rectToScreen(view, { left: 0, top: 0, width: original.width, height: original.height });
  const [cursor, setCursor] = useState('default');

  const wheelRest = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(wheelRest.current), []);
  const onWheel = ({ evt, target }: Konva.KonvaEventObject<WheelEvent>) => {
    evt.preventDefault();
    const pointer = target.getStage()?.getPointerPosition();
    if (!chosen || !pointer) return;
    const factor = Math.exp(evt.deltaY * wheelStrength);
    onMove(zoomAbout(chosen.window, factor, toOriginal(view, pointer), original, chosen.output));
    clearTimeout(wheelRest.current);
    wheelRest.current = setTimeout(onRest, 160);
  };

  const onDrag = ({ target }: Konva.KonvaEventObject<DragEvent>) => {
    if (!chosen) return;
    const at = toOriginal(view, target.position());
    const window = clampWindow(windowAt(at.x, at.y, chosen.window.span, chosen.output), original, chosen.output);
    const seen = rectToScreen(view, windowRect(window, chosen.output));
    target.position({ x: seen.left, y: seen.top });
    onMove(window);
  };
  const onCorner =
    (corner: Corner) =>
    ({ target }: Konva.KonvaEventObject<DragEvent>) => {
      const pointer = target.getStage()?.getPointerPosition();
      if (!chosen || !pointer) return;
      const window = dragCorner(chosen.window, corner, toOriginal(view, pointer), original, chosen.output);
      const at = cornerPoint(rectToScreen(view, windowRect(window, chosen.output)), corner);
      target.position({ x: at.x - handle / 2, y: at.y - handle / 2 });
      onMove(window);
    };

  const strong = chosen && rectToScreen(view, windowRect(chosen.window, chosen.output));
  return (
    <div
      ref={holder}
      style={{ position: 'absolute', inset: 0, cursor }}
      data-testid="stage"
      data-scale={view.scale}
      data-left={view.offset.x}
      data-top={view.offset.y}
    >
      <Stage width={room.width} height={room.height} onWheel={onWheel}>
        <Layer listening={false}>
          {image && <Image image={image} x={whole.left} y={whole.top} width={whole.width} height={whole.height} />}
          {strong && (
            <Shape
              fill={palette.outlineEdge}
              opacity={veil}
              sceneFunc={(context, shape) => {
                context.beginPath();
                context.rect(whole.left, whole.top, whole.width, whole.height);
                // Drawn the other way round, the inner rectangle is a hole.
                context.moveTo(strong.left, strong.top);
                context.lineTo(strong.left, strong.top + strong.height);
                context.lineTo(strong.left + strong.width, strong.top + strong.height);
                context.lineTo(strong.left + strong.width, strong.top);
                context.closePath();
                context.fillShape(shape);
              }}
            />
          )}
        </Layer>
        <Layer>
          {outlines
            .filter((one) => one.id !== chosen?.id)
            .map((one) => {
              const rect = rectToScreen(view, windowRect(one.window, one.output));
              const shape = { x: rect.left, y: rect.top, width: rect.width, height: rect.height };
              return (
                <Rect
                  key={one.id}
                  {...shape}
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
              );
            })}
          {chosen && strong && (
            <>
              <Rect
                x={strong.left}
                y={strong.top}
                width={strong.width}
                height={strong.height}
                stroke={palette.outlineEdge}
                strokeWidth={4}
                opacity={0.55}
                listening={false}
              />
              <Rect
                x={strong.left}
                y={strong.top}
                width={strong.width}
                height={strong.height}
                stroke={palette.outline}
                strokeWidth={2}
                fill="transparent"
                draggable
                onDragMove={onDrag}
                onDragEnd={onRest}
                onMouseEnter={() => setCursor('move')}
                onMouseLeave={() => setCursor('default')}
              />
              {corners.map((corner) => {
                const at = cornerPoint(strong, corner);
                return (
                  <Rect
                    key={corner}
                    x={at.x - handle / 2}
                    y={at.y - handle / 2}
                    width={handle}
                    height={handle}
                    fill={palette.outline}
                    stroke={palette.selection}
                    strokeWidth={1.5}
                    hitStrokeWidth={14}
                    draggable
                    onDragMove={onCorner(corner)}
                    onDragEnd={onRest}
                    onMouseEnter={() =>
                      setCursor(corner === 'top left' || corner === 'bottom right' ? 'nwse-resize' : 'nesw-resize')
                    }
                    onMouseLeave={() => setCursor('default')}
                  />
                );
              })}
            </>
          )}
        </Layer>
      </Stage>
    </div>
  );
}

function cornerPoint(rect: { left: number; top: number; width: number; height: number }, corner: Corner) {
  return {
    x: corner.endsWith('left') ? rect.left : rect.left + rect.width,
    y: corner.startsWith('top') ? rect.top : rect.top + rect.height,
  };
}
