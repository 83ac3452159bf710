import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { useNetworks, useStartDryRun } from '../../../api/dryRuns.ts';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';

/** Tries a frame's file on the simulated network of its place, without a delivery. */
export function AsShown({ one, state }: { one: BenchFrame; state: FrameState }) {
  const { frame, at } = one;
  const { data: networks } = useNetworks();
  const start = useStartDryRun(frame.projectId);
  const go = useNavigate();
  const note = useUndoNote();
  const isThere = networks?.some(({ slug }) => slug === at.network.slug) ?? true;
  const plan = state.savedHash;
  if (!isThere) {
    return (
      <p className="quiet small">No simulated network is running as {at.network.name}: nothing can be tried there.</p>
    );
  }
  return (
    <section className="as-shown" aria-label="As the network shows it">
      <Button
        size="small"
        disabled={plan === null || state.weight === null}
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
    </section>
  );
}
