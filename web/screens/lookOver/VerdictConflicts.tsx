import type { Verdict } from '@inkwell/core/model';
import { KeepWhich } from '../bench/reading/Conflicts.tsx';
import { useBench } from '../bench/state/useBench.ts';
import type { OverviewFrame } from './overview.ts';

/** So many are told one by one. */
const mostShown = 3;

const said = (verdict: Verdict | null): string => (verdict ? `“${verdict.is}”` : 'nothing');

/** Frames of which something was said here while they were changed in another window, and the choice between the two. */
export function VerdictConflicts({ frames }: { frames: readonly OverviewFrame[] }) {
  const phases = useBench((bench) => bench.phases.frames);
  const settings = useBench((bench) => bench.settings.frames);
  const both = frames.flatMap(({ one }) => {
    const phase = phases[one.frame.id];
    const mine = settings[one.frame.id];
    return phase?.is === 'conflicted' && mine ? [{ one, mine, theirs: phase.theirs }] : [];
  });
  return both.slice(0, mostShown).map(({ one: { frame, original, at }, mine, theirs }) => (
    <KeepWhich key={frame.id} kind="frames" id={frame.id}>
      <strong>
        {original.name} at {at.network.name} {at.place.name} was changed in another window.
      </strong>{' '}
      You said {said(mine.verdict)}, which is not saved; there it says {said(theirs.verdict)}. Which version do you want
      to keep?
    </KeepWhich>
  ));
}
