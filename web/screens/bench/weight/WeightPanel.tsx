import { isGood } from '@inkwell/core/checking';
import type { Point } from '@inkwell/core/geometry';
import type { Trial } from '@inkwell/core/model';
import { Select } from 'antd';
import { type Encoding, type EncodingSubject, useWays } from '../../../api/files/encodings.ts';
import { FailureLine } from '../../../parts/States.tsx';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { Curve } from './curve/Curve.tsx';
import { isOf, type Series } from './curve/series.ts';
import { useCurve } from './curve/useCurve.ts';
import { FileNumbers } from './FileNumbers.tsx';
import { FormatProposal } from './FormatProposal.tsx';
import { QualityField } from './QualityField.tsx';
import { AsShown } from './shown/AsShown.tsx';
import { WaysOut } from './WaysOut.tsx';
import { WeighingFields } from './WeighingFields.tsx';
import { FileWords } from './words/FileWords.tsx';
import { PostingFields } from './words/PostingFields.tsx';

/** What a frame's file weighs and has lost, what it could weigh, and what is set about that. */
export function WeightPanel(props: {
  one: BenchFrame;
  state: FrameState;
  subject: EncodingSubject | null;
  series: Series[];
  /** Null until the first file is measured. */
  tried: Encoding | null;
  trial: { data: Trial | null; error: unknown };
  piece: number;
  onPiece: (piece: number) => void;
  onTry: (encoding: Encoding | null) => void;
  onGoTo: (point: Point) => void;
}) {
  const { one, state, subject, series, tried, trial, piece, onPiece, onTry, onGoTo } = props;
  const { limit } = one.at.place;
  const { weight, settings } = state;
  const inNeed = weight !== null && !isGood(weight);
  const about = { frameId: one.frame.id, planHash: state.savedHash };
  const ways = useWays(about, 'ways', inNeed);
  const formats = useWays(about, 'formats', weight !== null && !inNeed);
  // Where a way out is looked for, that comes first: the machine can only try so much at once.
  const isBusy =
    weight === null ||
    (inNeed && !ways.error && (ways.data?.some((way) => way.weight === null && way.failure === null) ?? true));
  const curve = useCurve(isBusy ? null : subject, series);
  const file = weight?.files[piece] ?? null;
  const line = series.find((each) => tried && isOf(each, tried)) ?? series[0];
  const tryOn = ({ format, colours, chroma }: Series, quality: number) => onTry({ format, colours, chroma, quality });
  return (
    <aside className="compare-panel weight-panel" aria-label="Weight">
      <FileNumbers one={one} state={state} file={file} onGoTo={onGoTo} />
      <AsShown one={one} state={state} />
      {state.grid && (
        <div className="row small">
          <span>File</span>
          <Select<number>
            size="small"
            aria-label="Which file"
            value={piece}
            onChange={onPiece}
            options={state.numbers.map((number, index) => ({
              value: index,
              label: `${number} of ${state.numbers.length}`,
            }))}
          />
        </div>
      )}
      {inNeed ? (
        <WaysOut one={one} ways={ways.data} failed={ways.error !== null} />
      ) : (
        weight && formats.data && <FormatProposal one={one} state={state} weight={weight} formats={formats.data} />
      )}
      {(inNeed ? ways : formats).error && (
        <FailureLine error={(inNeed ? ways : formats).error} again={() => void (inNeed ? ways : formats).refetch()} />
      )}
      <Curve
        points={curve.points}
        series={series}
        limitBytes={limit.bytes}
        budgetBytes={state.budgetBytes}
        unit={limit.unit}
        chosen={file && { quality: file.quality, bytes: file.bytes, similarity: file.similarity.overall }}
        tried={
          trial.data && {
            quality: trial.data.quality ?? 100,
            bytes: trial.data.bytes,
            similarity: trial.data.similarity?.overall ?? null,
          }
        }
        onTry={tryOn}
      />
      {curve.error !== null && <FailureLine error={curve.error} again={curve.again} />}
      {line && tried && (
        <QualityField
          series={series}
          line={line}
          tried={tried}
          trial={trial.data}
          error={trial.error}
          isOwn={isOf(line, { ...settings, ...settings.weighing })}
          frameId={one.frame.id}
          settings={settings}
          unit={limit.unit}
          onTry={tryOn}
        />
      )}
      <WeighingFields one={one} state={state} />
      <FileWords one={one} weight={weight} />
      <PostingFields one={one} state={state} />
    </aside>
  );
}
