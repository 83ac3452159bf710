import { isGood, lightestUnseen, rankWays } from '@inkwell/core/checking';
import { formatLabel, formatWeight, leastSimilarity, type Weight } from '@inkwell/core/model';
import { Button } from 'antd';
import { type AskedWay, useWays } from '../../../api/encodings.ts';
import type { BenchFrame, FrameState } from '../benchFrame.ts';
import { useBenchStore } from '../useBench.ts';

type MeasuredWay = AskedWay & { weight: Weight };
const isMeasured = (way: AskedWay): way is MeasuredWay => way.weight !== null;
const kB = (bytes: number) => formatWeight(bytes, 'MB');

/** What could be done about a file that is too heavy or has lost too much; else, the format that would be lighter. */
export function WaysOut(props: { one: BenchFrame; state: FrameState; formats: AskedWay[] | undefined }) {
  const { one, state, formats } = props;
  const { weight } = state;
  const inNeed = weight !== null && !isGood(weight);
  const asked = useWays({ frameId: one.frame.id, planHash: state.savedHash }, 'ways', inNeed);
  if (inNeed) return <Ways one={one} asked={asked} />;
  return weight && formats ? <Proposal one={one} state={state} weight={weight} formats={formats} /> : null;
}

/** Ways out, the best first, each with what it costs as it was measured. */
function Ways({ one, asked }: { one: BenchFrame; asked: AskedWay[] | undefined }) {
  const store = useBenchStore();
  const { place } = one.at;
  const measured = rankWays((asked ?? []).filter(isMeasured));
  const waiting = (asked?.length ?? 1) - measured.length;
  return (
    <section className="ways" aria-label="Ways out">
      <h3>Ways out</h3>
      <ol>
        {measured.map((way) => (
          <li key={way.key} data-way={way.key}>
            <Button
              size="small"
              type={isGood(way.weight) ? 'primary' : 'default'}
              disabled={!way.weight.fits}
              onClick={() => store.getState().set('frames', one.frame.id, way.change)}
            >
              {way.label}
            </Button>{' '}
            <span className="small">
              {kB(way.weight.bytes)}
              {way.weight.fits ? `, ${leastSimilarity(way.weight).toFixed(1)} of 100` : ': too heavy as well'}
              {way.cost ? `; ${way.cost}` : ''}
            </span>
          </li>
        ))}
      </ol>
      {waiting > 0 && <p className="quiet small">{waiting} more are being measured …</p>}
      {asked && asked.length === 0 && (
        <p className="small">
          {place.name} takes nothing else. Show less of the picture, or choose a place with a wider limit.
        </p>
      )}
    </section>
  );
}

/** Which format is the lightest in which nothing is seen to be lost, and why. */
function Proposal(props: { one: BenchFrame; state: FrameState; weight: Weight; formats: AskedWay[] }) {
  const { one, state, weight, formats } = props;
  const store = useBenchStore();
  const measured = formats.filter(isMeasured);
  if (measured.length < formats.length) {
    return <p className="quiet small ways">Comparing the formats that the place takes …</p>;
  }
  const own = measured.find(({ key }) => key === 'own');
  const best = lightestUnseen(measured);
  const { kind } = weight.nature;
  const why = { photo: 'A photo', 'flat artwork': 'Flat artwork', mixed: 'Photo and drawing in one' }[kind];
  const nameOf = (way: MeasuredWay) =>
    way.key === 'own' ? `${formatLabel[state.settings.format]}, as it is set,` : way.label;
  if (!best || !own) return null;
  const others = measured.filter(({ key }) => key !== best.key).sort((a, b) => a.weight.bytes - b.weight.bytes);
  const [next] = others;
  // Less than a twentieth is not worth a change of format.
  const worthIt = best.key !== 'own' && best.weight.bytes < own.weight.bytes * 0.95;
  const shown = worthIt ? best : own;
  const beside = worthIt ? own : (next ?? null);
  return (
    <section className="ways" aria-label="Format">
      <p className="small">
        {why}: {nameOf(shown)} weighs {kB(shown.weight.bytes)} with nothing seen to be lost
        {beside && `, ${nameOf(beside)} ${kB(beside.weight.bytes)}${isUnseen(beside) ? '' : ' and shows it'}`}.{' '}
        {worthIt && (
          <Button size="small" onClick={() => store.getState().set('frames', one.frame.id, best.change)}>
            Deliver as {best.label}
          </Button>
        )}
      </p>
    </section>
  );
}

const isUnseen = (way: MeasuredWay) => lightestUnseen([way]) !== null;
