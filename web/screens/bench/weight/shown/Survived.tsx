import { fileDimensions } from '@inkwell/core/geometry';
import type { Survival } from '@inkwell/core/model';
import { changeFor, isWorthIt } from '@inkwell/core/surviving';
import { Button } from 'antd';
import { useLearnUpload } from '../../../../api/files/survival.ts';
import { counted } from '../../../../parts/counted.ts';
import { useUndoNote } from '../../../../parts/useUndoNote.tsx';
import { choiceWords, gainWords, whereWords } from '../../../../places/uploadWords.ts';
import type { BenchFrame, FrameState } from '../../frames/benchFrame.ts';
import { finishFor } from '../../frames/finishing.ts';
import { useBench, useBenchStore } from '../../state/useBench.ts';
import { framesOfPlace } from './framesOfPlace.ts';

/** The best way to upload a frame, with what is gained by it; to be used here, or for all frames of its place. */
export function Survived(props: { one: BenchFrame; state: FrameState; survival: Survival }) {
  const { one, state, survival } = props;
  const { asSet, best, tried } = survival;
  const { at, frame } = one;
  const store = useBenchStore();
  const note = useUndoNote();
  const learn = useLearnUpload({ frameId: frame.id, planHash: state.savedHash });
  const count = useBench(({ saved }) => framesOfPlace(saved, at.id).length);
  const worthIt = isWorthIt(survival);
  const { choice } = best;
  const changed = { ...state.settings, ...changeFor(choice, state.settings, state.finish.treatment.blend) };
  const dimensions = fileDimensions(at.place, one.original, changed);
  const useForAll = async () => {
    try {
      await learn.mutateAsync();
    } catch (error) {
      note.failed(error);
      return;
    }
    const { saved, settings } = store.getState();
    store.setFrames(
      new Map(
        framesOfPlace(saved, at.id).flatMap(({ id, originalId }) => {
          const [own, original] = [settings.frames[id], settings.originals[originalId]];
          if (!own || !original) return [];
          const { blend } = finishFor({ original, finishing: one.finishing }, own).treatment;
          return [[id, changeFor(choice, own, blend)] as const];
        }),
      ),
    );
  };
  return (
    <>
      <p className="small">
        {worthIt ? (
          <>
            <strong>{choiceWords(choice, dimensions)}</strong>: {gainWords(survival, at.place.limit.unit)}. The best of{' '}
            {counted(tried, 'way')} tried.
          </>
        ) : (
          `Of ${counted(tried, 'way')} tried, none is shown better or is clearly lighter than this one.`
        )}
      </p>
      <table className="figures small" aria-label="What is left where it is shown">
        <thead>
          <tr>
            <th scope="col">Shown</th>
            <th scope="col">as it is set</th>
            <th scope="col">at best</th>
            <th scope="col">worst spot</th>
          </tr>
        </thead>
        <tbody>
          {asSet.left.map((before, index) => (
            <tr key={before.shownWidth ?? 'full'}>
              <th scope="row">{whereWords(before)}</th>
              <td>{before.similarity.toFixed(1)}</td>
              <td>{best.left[index]?.similarity.toFixed(1)}</td>
              <td className="quiet">
                {before.worst.toFixed(1)} → {best.left[index]?.worst.toFixed(1)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {worthIt && (
        <div className="row wrap">
          <Button
            size="small"
            type="primary"
            onClick={() =>
              store.set('frames', frame.id, changeFor(choice, state.settings, state.finish.treatment.blend))
            }
          >
            Use it here
          </Button>
          <Button
            size="small"
            loading={learn.isPending}
            title={`New frames at ${at.place.name} are uploaded like this as well, until the spec book says otherwise`}
            onClick={() => void useForAll()}
          >
            {count > 1 ? `Use it for all ${count} at ${at.place.name}` : `Use it for all at ${at.place.name}`}
          </Button>
        </div>
      )}
    </>
  );
}
