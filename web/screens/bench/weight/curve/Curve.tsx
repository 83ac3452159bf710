import { formatWeight, type WeightUnit } from '@inkwell/core/model';
import { kneeOf } from '@inkwell/core/weighing';
import { Segmented } from 'antd';
import { useState } from 'react';
import { ReferenceDot, ReferenceLine, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts';
import { palette } from '../../../../theme/palette.ts';
import { isOf, type Series } from './series.ts';
import type { CurvePoint } from './useCurve.ts';
import { tickWords, weightTicks } from './weightTicks.ts';

const views = { quality: 'Bytes over quality', bytes: 'Similarity over bytes' } as const;
type CurveView = keyof typeof views;

/** What the qualities of every format weigh and how similar they are; a point that is pressed is tried. */
export function Curve(props: {
  points: CurvePoint[];
  series: Series[];
  limitBytes: number;
  budgetBytes: number;
  unit: WeightUnit;
  /** What the frame's file came out as, and what is tried. */
  chosen: { quality: number | null; bytes: number; similarity: number } | null;
  tried: { quality: number; bytes: number; similarity: number | null } | null;
  onTry: (series: Series, quality: number) => void;
}) {
  const { points, series, limitBytes, budgetBytes, unit, chosen, tried, onTry } = props;
  const [view, setView] = useState<CurveView>('quality');
  const over = view === 'quality';
  const weights = [...points.map(({ bytes }) => bytes), ...(chosen ? [chosen.bytes] : [])];
  const heaviest = Math.max(...weights, 1);
  const lightest = Math.min(...weights);
  // A limit far above every file would press the curves together; it is said in words instead.
  const nearLimit = limitBytes < heaviest * 4 && limitBytes > lightest / 4;
  const bounds: [number, number] = [
    Math.min(lightest, nearLimit ? budgetBytes : lightest) * 0.8,
    Math.max(heaviest, nearLimit ? limitBytes : 0) * 1.15,
  ];
  const own = series[0];
  const knee = own ? kneeOf(points.filter((point) => isOf(own, point.series))) : null;
  const place = (point: { quality: number | null; bytes: number; similarity: number | null }) =>
    over ? { x: point.quality ?? 100, y: point.bytes } : { x: point.bytes, y: point.similarity ?? 0 };
  const least = Math.floor(Math.min(99, ...points.map(({ similarity }) => similarity)));
  const bytesAxis = {
    type: 'number' as const,
    scale: 'log' as const,
    domain: bounds,
    allowDataOverflow: true,
    ticks: weightTicks(...bounds, unit, over ? 6 : 5),
    tickFormatter: (bytes: number) => tickWords(bytes, unit),
    fontSize: 11,
  };
  const limits = [
    { bytes: limitBytes, stroke: palette.blocker, word: 'limit' },
    { bytes: budgetBytes, stroke: palette.caution, word: 'less headroom' },
  ];
  return (
    <figure className="curve" aria-label={views[view]} data-points={points.length}>
      <div className="row spread">
        <Segmented<CurveView>
          size="small"
          aria-label="Curve"
          value={view}
          onChange={setView}
          options={(Object.keys(views) as CurveView[]).map((value) => ({ value, label: views[value] }))}
        />
      </div>
      <div className="curve-plot">
        <ResponsiveContainer width="100%" height="100%">
          <ScatterChart margin={{ top: 8, right: 12, bottom: 0, left: 0 }}>
            {over ? (
              <XAxis
                dataKey="x"
                type="number"
                domain={[0, 100]}
                ticks={[0, 25, 50, 75, 100]}
                fontSize={11}
                height={20}
              />
            ) : (
              <XAxis dataKey="x" {...bytesAxis} height={20} />
            )}
            {over ? (
              <YAxis dataKey="y" {...bytesAxis} width={62} />
            ) : (
              <YAxis dataKey="y" type="number" domain={[least, 100]} fontSize={11} width={62} />
            )}
            {nearLimit &&
              limits.map(({ bytes, stroke, word }) => (
                <ReferenceLine
                  key={word}
                  {...(over ? { y: bytes } : { x: bytes })}
                  stroke={stroke}
                  strokeDasharray="4 3"
                />
              ))}
            {series.map((line) => (
              <Scatter
                key={line.key}
                name={line.name}
                isAnimationActive={false}
                data={points
                  .filter((point) => point.series.key === line.key)
                  .map((point) => ({ ...place(point), quality: point.quality }))
                  .sort((a, b) => a.x - b.x)}
                line={{ stroke: line.colour, strokeWidth: 1.5 }}
                shape={<Dot colour={line.colour} onPress={(quality) => onTry(line, quality)} />}
              />
            ))}
            {knee && <ReferenceDot {...place(knee)} r={6} fill="none" stroke={palette.secondInk} strokeWidth={1.5} />}
            {chosen && <ReferenceDot {...place(chosen)} r={5} fill={palette.ink} stroke={palette.sheet} />}
            {tried && tried.similarity !== null && (
              <ReferenceDot {...place(tried)} r={6} fill="none" stroke={palette.selection} strokeWidth={2} />
            )}
          </ScatterChart>
        </ResponsiveContainer>
        {points.length === 0 && <span className="curve-empty quiet small">The first encodings are being tried …</span>}
      </div>
      <figcaption className="curve-legend small">
        {series.map(({ key, name, colour }) => (
          <span key={key}>
            <i style={{ background: colour }} />
            {name}
          </span>
        ))}
        <span>● this file</span>
        <span className="curve-tried">○ tried</span>
        {knee && (
          <button type="button" className="plain-button" onClick={() => onTry(knee.series, knee.quality)}>
            ○ knee: {knee.series.name} {knee.quality}
          </button>
        )}
        {nearLimit ? (
          <span>
            <i style={{ background: palette.blocker }} /> limit <i style={{ background: palette.caution }} /> less
            headroom
          </span>
        ) : (
          <span className="quiet">the limit of {formatWeight(limitBytes, unit)} lies far off</span>
        )}
      </figcaption>
    </figure>
  );
}

/** A point that can be pressed; Recharts gives it its place. */
function Dot(props: {
  cx?: number;
  cy?: number;
  payload?: { quality: number };
  colour: string;
  onPress: (quality: number) => void;
}) {
  const { cx, cy, payload, colour, onPress } = props;
  if (cx === undefined || cy === undefined || !payload) return null;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the slider below the curve does the same with keys.
    <g style={{ cursor: 'pointer' }} onClick={() => onPress(payload.quality)}>
      <circle cx={cx} cy={cy} r={9} fill="transparent" />
      <circle cx={cx} cy={cy} r={3} fill={colour} />
      <title>Quality {payload.quality}</title>
    </g>
  );
}
