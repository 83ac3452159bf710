import { type Rect as Region, rectToScreen, rectWithin, toOriginal, type Viewport } from '@inkwell/core/geometry';
import type { Dimensions, Mark } from '@inkwell/core/model';
import type Konva from 'konva';
import { Fragment } from 'react';
import { Rect, Shape, Text } from 'react-konva';
import { palette } from '../theme/palette.ts';
import { placed } from './placed.ts';
import { RegionHandles } from './RegionHandles.tsx';
import { smallestMark } from './tools.ts';

const hatch = 9;

/** The marks on an original: soft brackets round what is kept, hatching over what is avoided. */
export function MarksLayer(props: {
  view: Viewport;
  original: Dimensions;
  marks: readonly Mark[];
  selectedId: string | null;
  onSelect: (id: string) => void;
  onChange: (id: string, region: Region) => void;
  /** A movement has come to its end. */
  onRest: () => void;
  onCursor: (cursor: string) => void;
}) {
  const { view, original, marks, selectedId, onSelect, onChange, onRest, onCursor } = props;
  return marks.map((mark) => {
    const seen = rectToScreen(view, mark);
    const selected = mark.id === selectedId;
    const moved = ({ target }: Konva.KonvaEventObject<DragEvent>) => {
      const at = toOriginal(view, target.position());
      const region = rectWithin({ ...mark, left: at.x, top: at.y }, original, smallestMark);
      const back = rectToScreen(view, region);
      target.position({ x: back.left, y: back.top });
      onChange(mark.id, region);
    };
    return (
      <Fragment key={mark.id}>
        <MarkShape mark={mark} seen={seen} selected={selected} />
        {(selected || mark.role === 'keep') && (
          <Text
            x={seen.left + 3}
            y={seen.top - 15}
            text={mark.name}
            fontSize={12}
            fontFamily="Public Sans Variable"
            fill={palette.outline}
            stroke={palette.outlineEdge}
            strokeWidth={3}
            fillAfterStrokeEnabled
            listening={false}
          />
        )}
        <Rect
          {...placed(seen)}
          // Only its edge is met by the pointer, so that what lies under a mark can still be moved.
          fillEnabled={selected}
          fill="transparent"
          stroke="transparent"
          hitStrokeWidth={12}
          draggable
          onMouseDown={() => onSelect(mark.id)}
          onTap={() => onSelect(mark.id)}
          onDragMove={moved}
          onDragEnd={onRest}
          onMouseEnter={() => onCursor('move')}
          onMouseLeave={() => onCursor('default')}
        />
        {selected && (
          <RegionHandles
            view={view}
            region={mark}
            original={original}
            least={smallestMark}
            onChange={(region) => onChange(mark.id, region)}
            onRest={onRest}
            onCursor={onCursor}
          />
        )}
      </Fragment>
    );
  });
}

function MarkShape({ mark, seen, selected }: { mark: Mark; seen: Region; selected: boolean }) {
  const colour = mark.role === 'keep' ? palette.markKeep : palette.markAvoid;
  return (
    <Shape
      listening={false}
      sceneFunc={(context) => {
        const canvas = context._context;
        const { left, top, width, height } = seen;
        const outline = () => {
          canvas.beginPath();
          if (mark.shape === 'ellipse') {
            canvas.ellipse(left + width / 2, top + height / 2, width / 2, height / 2, 0, 0, 2 * Math.PI);
          } else canvas.rect(left, top, width, height);
        };
        canvas.save();
        if (mark.role === 'avoid') {
          outline();
          canvas.clip();
          canvas.beginPath();
          for (let at = -height; at < width; at += hatch) {
            canvas.moveTo(left + at, top + height);
            canvas.lineTo(left + at + height, top);
          }
          canvas.strokeStyle = colour;
          canvas.lineWidth = 1.5;
          canvas.stroke();
          canvas.restore();
          canvas.save();
        }
        const strokes = [
          { style: palette.outlineEdge, width: 4, alpha: 0.5 },
          { style: colour, width: selected ? 2.5 : 2, alpha: 1 },
        ];
        for (const { style, width: lineWidth, alpha } of strokes) {
          canvas.strokeStyle = style;
          canvas.lineWidth = lineWidth;
          canvas.globalAlpha = alpha;
          if (mark.role === 'keep' && mark.shape === 'rectangle') brackets(canvas, seen);
          else outline();
          canvas.stroke();
        }
        canvas.restore();
      }}
    />
  );
}

/** Four corners of a rectangle, open between them. */
function brackets(canvas: CanvasRenderingContext2D, { left, top, width, height }: Region): void {
  const arm = Math.min(width, height) * 0.28;
  canvas.beginPath();
  for (const [x, y, across, down] of [
    [left, top, 1, 1],
    [left + width, top, -1, 1],
    [left, top + height, 1, -1],
    [left + width, top + height, -1, -1],
  ] as const) {
    canvas.moveTo(x + across * arm, y);
    canvas.lineTo(x, y);
    canvas.lineTo(x, y + down * arm);
  }
}
