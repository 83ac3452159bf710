import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { useFindSurvival, useLearnedUploads, useSurvival } from '../../../../api/files/survival.ts';
import { useSpecBook } from '../../../../api/library/specBook.ts';
import { useNetworks, useStartDryRun } from '../../../../api/projects/dryRuns.ts';
import { ForEditors } from '../../../../parts/ForEditors.tsx';
import { FailureLine } from '../../../../parts/States.tsx';
import { useUndoNote } from '../../../../parts/useUndoNote.tsx';
import { afterwardsWords } from '../../../../places/uploadWords.ts';
import { useOpenProject } from '../../../ProjectLayout.tsx';
import type { BenchFrame, FrameState } from '../../frames/benchFrame.ts';
import { Learned } from './Learned.tsx';
import { Survived } from './Survived.tsx';

/** What becomes of a frame's file at its network: tried there without a delivery, or the best way to upload it looked for. */
export function AsShown({ one, state }: { one: BenchFrame; state: FrameState }) {
  const { frame, at } = one;
  const { data: networks } = useNetworks();
  const { data: sheets } = useSpecBook(useOpenProject());
  const sheet = sheets?.find(({ slug }) => slug === at.network.slug);
  const start = useStartDryRun(frame.projectId);
  const asked = { frameId: frame.id, planHash: state.savedHash };
  const survival = useSurvival(asked);
  const find = useFindSurvival(asked);
  const uploads = useLearnedUploads();
  const learned = uploads.data?.find(({ placeId }) => placeId === at.id);
  const unknown = survival.error ? survival : uploads.error ? uploads : null;
  const go = useNavigate();
  const note = useUndoNote();
  const isThere = networks?.some(({ slug }) => slug === at.network.slug) ?? true;
  const plan = state.savedHash;
  const isReady = plan !== null && state.weight !== null;
  const isFinding = find.isPending || survival.data?.isWorking === true;
  return (
    <section className="as-shown" aria-label="As the network shows it">
      <h2 className="minor-title">As {at.network.name} shows it</h2>
      {sheet && <p className="quiet small">{afterwardsWords(sheet, state.file)}</p>}
      <ForEditors>
        <div className="row wrap">
          {isThere ? (
            <Button
              size="small"
              disabled={!isReady}
              loading={start.isPending}
              title="Uploads this file to the simulated network, and measures what is shown of it"
              onClick={() =>
                plan &&
                start.mutate(
                  { frameId: frame.id, plan },
                  {
                    onError: note.failed,
                    onSuccess: ({ id }) => void go(`/projects/${frame.projectId}/deliver/dry-runs/${id}?file=0`),
                  },
                )
              }
            >
              Dry run at {at.network.name}
            </Button>
          ) : (
            <span className="quiet small">No simulated network is running as {at.network.name}.</span>
          )}
          {sheet?.afterUpload && !survival.data?.survival && (
            <Button
              size="small"
              disabled={!isReady || isFinding}
              title="Tries dimensions, formats, qualities and finishes, each through what the network does with it"
              onClick={() => find.mutate(undefined, { onError: note.failed })}
            >
              Find the best upload
            </Button>
          )}
        </div>
      </ForEditors>
      {isFinding && (
        <p className="quiet small" role="status">
          Trying ways to upload this file; this takes up to a minute …
        </p>
      )}
      {survival.data?.failure && !isFinding && <p className="small">It was not found: {survival.data.failure}</p>}
      {unknown && <FailureLine error={unknown.error} again={() => void unknown.refetch()} />}
      {learned && <Learned one={one} state={state} learned={learned} />}
      {survival.data?.survival && <Survived one={one} state={state} survival={survival.data.survival} />}
    </section>
  );
}
