import { lightestUnseen } from '@inkwell/core/checking';
import { formatLabel, formatWeight, type WeighedWay, type Weight } from '@inkwell/core/model';
import { Button } from 'antd';
import { isMeasured, type MeasuredWay } from '../../../api/files/encodings.ts';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';

const weigh = (bytes: number) => formatWeight(bytes, 'MB');

/** Which format is the lightest in which nothing is seen to be lost, and why. */
export function FormatProposal(props: { one: BenchFrame; state: FrameState; weight: Weight; formats: WeighedWay[] }) {
  const { one, state, weight, formats } = props;
  const store = useBenchStore();
  const measured = formats.filter(isMeasured);
  if (formats.some(({ weight: known, failure }) => known === null && failure === null)) {
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
        {why}: {nameOf(shown)} weighs {weigh(shown.weight.bytes)} with nothing seen to be lost
        {beside && `, ${nameOf(beside)} ${weigh(beside.weight.bytes)}${isUnseen(beside) ? '' : ' and shows it'}`}.{' '}
        {worthIt && (
          <Button size="small" onClick={() => store.set('frames', one.frame.id, best.change)}>
            Deliver as {best.label}
          </Button>
        )}
      </p>
    </section>
  );
}

const isUnseen = (way: MeasuredWay) => lightestUnseen([way]) !== null;
