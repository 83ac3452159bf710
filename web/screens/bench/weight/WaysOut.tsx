import { isGood, rankWays } from '@inkwell/core/checking';
import { formatWeight, leastSimilarity, type WeighedWay } from '@inkwell/core/model';
import { Button } from 'antd';
import { isMeasured } from '../../../api/files/encodings.ts';
import type { BenchFrame } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';

/** What could be done about a file that is too heavy or has lost too much: the best first, each with what it costs, as it was measured. */
export function WaysOut({ one, ways, failed }: { one: BenchFrame; ways: WeighedWay[] | undefined; failed: boolean }) {
  const store = useBenchStore();
  const { place } = one.at;
  const measured = rankWays((ways ?? []).filter(isMeasured));
  const waiting = ways ? ways.filter(({ weight, failure }) => weight === null && failure === null).length : 1;
  const failures = (ways ?? []).filter(({ failure }) => failure !== null);
  return (
    <section className="ways" aria-label="Ways to make it fit">
      <h2 className="minor-title">Ways to make it fit</h2>
      <ol>
        {measured.map((way) => (
          <li key={way.key} data-way={way.key}>
            <Button
              size="small"
              type={isGood(way.weight) ? 'primary' : 'default'}
              disabled={!way.weight.fits}
              onClick={() => store.set('frames', one.frame.id, way.change)}
            >
              {way.label}
            </Button>{' '}
            <span className="small">
              {formatWeight(way.weight.bytes, place.limit.unit)}
              {way.weight.fits ? `, ${leastSimilarity(way.weight).toFixed(1)} of 100` : ': too heavy as well'}
              {way.cost ? `; ${way.cost}` : ''}
            </span>
          </li>
        ))}
      </ol>
      {failures.map(({ key, label, failure }) => (
        <p key={key} className="small">
          {label} could not be measured: {failure}
        </p>
      ))}
      {waiting > 0 && !failed && <p className="quiet small">{waiting} more still being measured …</p>}
      {ways && ways.length === 0 && (
        <p className="small">
          {place.name} takes nothing else. Show less of the picture, or choose a place with a wider limit.
        </p>
      )}
    </section>
  );
}
