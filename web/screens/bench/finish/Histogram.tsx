import type { TonePoints } from '@inkwell/core/finishing';
import { luminanceOf } from '@inkwell/core/planes';
import type { Histogram as Counts } from '@inkwell/core/seeing';
import { Segmented } from 'antd';
import { useMemo, useState } from 'react';
import { Area, AreaChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { palette } from '../../../theme/palette.ts';

const channels = { luminance: 'Luminance', red: 'Red', green: 'Green', blue: 'Blue' } as const;
type Channel = keyof typeof channels;

/** A point of the tone in one channel, or the luminance of its colour. */
function levelIn(channel: Channel, [red, green, blue]: TonePoints['black']): number {
  const levels = { red, green, blue };
  if (channel !== 'luminance') return levels[channel];
  return luminanceOf.red * red + luminanceOf.green * green + luminanceOf.blue * blue;
}

/** How many pixels have each level: plain as an area, finished as a line, with the points that become black and white. */
export function Histogram(props: {
  plain: Counts | undefined;
  finished: Counts | undefined;
  points: TonePoints | null;
}) {
  const { plain, finished, points } = props;
  const [channel, setChannel] = useState<Channel>('luminance');
  const data = useMemo(() => {
    // Nothing is drawn of what is not counted. Roots, or a paper's one high peak would press everything else flat.
    const root = (counts: Counts | undefined, level: number) =>
      counts && counts.pixels > 0 ? Math.sqrt((counts[channel][level] ?? 0) / counts.pixels) : null;
    return Array.from({ length: 256 }, (_, level) => ({
      level,
      plain: root(plain, level),
      finished: root(finished, level),
    }));
  }, [plain, finished, channel]);
  return (
    <figure className="histogram" aria-label="Histogram">
      <div className="histogram-plot" data-ready={plain !== undefined && finished !== undefined}>
        <ResponsiveContainer width="100%" height="100%">
          <AreaChart data={data} margin={{ top: 4, right: 0, bottom: 0, left: 0 }}>
            <XAxis
              dataKey="level"
              type="number"
              domain={[0, 255]}
              ticks={[0, 64, 128, 192, 255]}
              height={18}
              fontSize={11}
            />
            <YAxis hide domain={[0, 'dataMax']} />
            <Area
              dataKey="plain"
              isAnimationActive={false}
              activeDot={false}
              stroke="none"
              fill={palette.secondInk}
              fillOpacity={0.35}
            />
            <Area
              dataKey="finished"
              isAnimationActive={false}
              activeDot={false}
              stroke={palette.action}
              strokeWidth={1.5}
              fill="none"
            />
            {points && <ReferenceLine x={levelIn(channel, points.black)} stroke={palette.ink} strokeDasharray="3 2" />}
            {points && (
              <ReferenceLine x={levelIn(channel, points.white)} stroke={palette.caution} strokeDasharray="3 2" />
            )}
          </AreaChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="row spread small">
        <span className="quiet">grey: plain, line: finished</span>
        <Segmented<Channel>
          size="small"
          aria-label="Channel"
          value={channel}
          onChange={setChannel}
          options={(Object.keys(channels) as Channel[]).map((value) => ({
            value,
            label: value === 'luminance' ? 'Lum' : channels[value].slice(0, 1),
            title: channels[value],
          }))}
        />
      </figcaption>
    </figure>
  );
}
