import { coveredAreas, coveredRects } from '@inkwell/core/framing';
import { hasClosing, type Rect, type Snap } from '@inkwell/core/geometry';
import type { Dimensions, FrameSettings, Place } from '@inkwell/core/model';
import { palette } from '../../../theme/palette.ts';

export const lineKinds = ['none', 'thirds', 'centre', 'diagonals'] as const;
export type LineKind = (typeof lineKinds)[number];

/** Ends of composition lines, as shares of the frame's width and height: x1, y1, x2, y2. */
const lines: Record<LineKind, [number, number, number, number][]> = {
  none: [],
  thirds: [
    [1 / 3, 0, 1 / 3, 1],
    [2 / 3, 0, 2 / 3, 1],
    [0, 1 / 3, 1, 1 / 3],
    [0, 2 / 3, 1, 2 / 3],
  ],
  centre: [
    [0.5, 0, 0.5, 1],
    [0, 0.5, 1, 0.5],
  ],
  diagonals: [
    [0, 0, 1, 1],
    [1, 0, 0, 1],
  ],
};

/** What lies over a frame to judge it by: composition lines, and hatching where the network covers it, with the reason. */
export function FrameOverlay(props: {
  id: string;
  place: Place;
  settings: FrameSettings;
  output: Dimensions;
  lines: LineKind;
  /** Lines on which something of the picture lies now. */
  snaps?: readonly Snap[];
  named: boolean;
}) {
  const { id, place, settings, output, named } = props;
  const { width, height } = output;
  const covered = coveredRects({ covered: coveredAreas(place, settings) }, output);
  const shown = settings.grid ? undefined : place.shownPart;
  /** Lines are the strip's, without its closing panel. */
  const across = width - (hasClosing(place, settings) ? place.width : 0);
  const step = Math.max(width, height) / 60;
  return (
    <svg className="close-up-over" viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
      <defs>
        <pattern
          id={`hatch-${id}`}
          width={step}
          height={step}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2={step} stroke={palette.outline} strokeWidth={step / 5} opacity="0.5" />
          <line
            x1={step / 2}
            y1="0"
            x2={step / 2}
            y2={step}
            stroke={palette.outlineEdge}
            strokeWidth={step / 8}
            opacity="0.3"
          />
        </pattern>
      </defs>
      {covered.map((area) => (
        <Outlined
          key={`${area.reason} ${area.left} ${area.top}`}
          area={area}
          step={step}
          fill={`url(#hatch-${id})`}
          reason={named ? area.reason : null}
        />
      ))}
      {shown && <Outlined area={shown} step={step} dashed reason={named ? `always shown: ${shown.reason}` : null} />}
      {lines[props.lines].map(([x1, y1, x2, y2]) => {
        const ends = { x1: x1 * across, y1: y1 * height, x2: x2 * across, y2: y2 * height };
        return (
          <g key={`${x1} ${y1} ${x2}`}>
            <line className="close-up-line edge" {...ends} />
            <line className="close-up-line" {...ends} />
          </g>
        );
      })}
      {props.snaps?.map(({ axis, at }) => (
        <line
          key={`${axis} ${at}`}
          className="close-up-snap"
          {...(axis === 'x'
            ? { x1: at * across, y1: 0, x2: at * across, y2: height }
            : { x1: 0, y1: at * height, x2: across, y2: at * height })}
        />
      ))}
    </svg>
  );
}

/** An area of the frame with its outline and, where there is room for words, its reason. */
function Outlined(props: { area: Rect; step: number; fill?: string; dashed?: boolean; reason: string | null }) {
  const { area, step, fill = 'none', dashed = false, reason } = props;
  return (
    <g>
      <rect
        className="close-up-covered"
        x={area.left}
        y={area.top}
        width={area.width}
        height={area.height}
        fill={fill}
        {...(dashed ? { strokeDasharray: '7 5' } : {})}
      />
      {reason && (
        <text
          x={area.left + step * 0.5}
          y={area.top + step * 1.8}
          fontSize={step * 1.5}
          fill={palette.outline}
          stroke={palette.outlineEdge}
          strokeWidth={step / 4}
          paintOrder="stroke"
        >
          {reason}
        </text>
      )}
    </g>
  );
}
