import { isGood } from '@inkwell/core/checking';
import type { Point } from '@inkwell/core/geometry';
import { type EncodedFile, formatLabel, formatLimit, formatWeight } from '@inkwell/core/model';
import { Button } from 'antd';
import { WeightGauge } from '../../../parts/WeightGauge.tsx';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { middleOf } from './EncodingCompare.tsx';
import { similarityWords } from './similarityWords.ts';

/** What one file weighs and what is left of the picture in it. */
export function FileNumbers(props: {
  one: BenchFrame;
  state: FrameState;
  file: EncodedFile | null;
  onGoTo: (point: Point) => void;
}) {
  const { one, state, file, onGoTo } = props;
  const { limit } = one.at.place;
  const { weight, settings } = state;
  if (!weight || !file) {
    return <p className="quiet weight-numbers">Encoding and measuring …</p>;
  }
  const { similarity } = file;
  const least = state.watched.flatMap(({ mark }, index) => {
    const kept = similarity.regions[index];
    return state.grid || kept === undefined ? [] : [{ name: mark.name, kept }];
  });
  const how = [
    formatLabel[settings.format],
    ...(file.quality === null ? [] : [`quality ${file.quality}`]),
    ...(file.colours === null ? [] : [`${file.colours} colours`]),
    ...(file.chroma === null || settings.format === 'webp' ? [] : [`colour ${file.chroma}`]),
  ];
  return (
    <section className="weight-numbers" aria-label="This file">
      <div className="row spread">
        <strong className="weight-bytes">{formatWeight(file.bytes, limit.unit)}</strong>
        <span className="quiet small">
          of {formatLimit(limit)}: {shareWords(file.bytes / limit.bytes)}
        </span>
      </div>
      <WeightGauge weight={weight} limit={limit} />
      <p className="small">
        {how.join(', ')}
        {!isGood(weight) && <strong className="weight-bad"> not delivered like this</strong>}
      </p>
      <table className="figures small">
        <tbody>
          <tr>
            <th scope="row">Similarity</th>
            <td>{similarity.overall.toFixed(1)}</td>
            <td className="quiet">{similarityWords(similarity)}</td>
          </tr>
          {least.map(({ name, kept }) => (
            <tr key={name}>
              <th scope="row">of “{name}”</th>
              <td>{kept.toFixed(1)}</td>
              <td />
            </tr>
          ))}
          <tr>
            <th scope="row">Worst spot</th>
            <td>{similarity.worst.similarity.toFixed(1)}</td>
            <td>
              <Button size="small" onClick={() => onGoTo(middleOf(similarity.worst))}>
                Go there
              </Button>
            </td>
          </tr>
          <tr>
            <th
              scope="row"
              title="How far flat areas have changed at their worst spot, in levels of 255: bands in a sky, specks around lettering"
            >
              Noise in flat areas
            </th>
            <td>{similarity.flatAreaError.toFixed(1)}</td>
            <td className="quiet">of 255 levels</td>
          </tr>
          <tr>
            <th
              scope="row"
              title="How far the most damaged block of 8 × 8 pixels has moved, less what its texture hides, in levels of 255"
            >
              Most damaged block
            </th>
            <td>{similarity.blockError.toFixed(1)}</td>
            <td className="quiet">of 255 levels</td>
          </tr>
        </tbody>
      </table>
    </section>
  );
}

const shareWords = (share: number) => (share < 0.01 ? 'less than 1 %' : `${Math.round(share * 100)} %`);
