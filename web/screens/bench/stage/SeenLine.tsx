import { isStraightened, straightened } from '@inkwell/core/geometry';
import type { Original, Proposal, Seen } from '@inkwell/core/model';
import { openBody, openTilt, seenWords } from '@inkwell/core/proposing';
import { Button, Checkbox } from 'antd';
import { useLookAgain } from '../../../api/library/seen.ts';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';
import { type Decision, named, ProposalTag } from '../../../stage/ProposalTag.tsx';
import type { BenchFrame } from '../frames/benchFrame.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';

/** What was seen in an original, in one line: all that is proposed can be taken or dismissed at once. */
export function SeenLine(props: {
  projectId: string;
  original: Original;
  frames: readonly BenchFrame[];
  /** Undefined while it is not known how far the program is. */
  seen: Seen | undefined;
  proposals: readonly Proposal[];
  onDecide: (proposals: readonly Proposal[], decision: Decision) => void;
}) {
  const { projectId, original, seen, proposals, onDecide } = props;
  const store = useBenchStore();
  const composing = useBench(({ settings }) => settings.projects[projectId]?.composing);
  return (
    <section className="seen-line small" aria-label="What is seen">
      <div className="seen-row">
        <LookState projectId={projectId} original={original} seen={seen} proposals={proposals} />
        {proposals.length > 0 && (
          <>
            <Button size="small" onClick={() => onDecide(proposals, 'keep')}>
              Keep all
            </Button>
            <Button size="small" onClick={() => onDecide(proposals, 'dismiss')}>
              Dismiss all
            </Button>
          </>
        )}
      </div>
      <div className="seen-tags">
        {named(proposals).map(({ proposal, name, key }) => (
          <ProposalTag
            key={key}
            proposal={proposal}
            name={name}
            onDecide={(one, decision) => onDecide([one], decision)}
          />
        ))}
      </div>
      <div className="seen-row">
        <Checkbox
          checked={composing === 'seen'}
          title="For all pictures of this project: frames follow what was seen as well as your marks"
          onChange={({ target }) => store.set('projects', projectId, { composing: target.checked ? 'seen' : 'marks' })}
        >
          Compose from this
        </Checkbox>
        <TiltOffer {...props} />
        <BodyOffer {...props} />
      </div>
    </section>
  );
}

function LookState(props: {
  projectId: string;
  original: Original;
  seen: Seen | undefined;
  proposals: readonly Proposal[];
}) {
  const { projectId, original, seen, proposals } = props;
  const again = useLookAgain(projectId);
  const note = useUndoNote();
  if (seen?.failure && !seen.analysis) {
    return (
      <span aria-live="polite">
        Not looked at. {seen.failure}{' '}
        {seen.mayTryAgain && (
          <Button
            size="small"
            loading={again.isPending}
            onClick={() => again.mutate(original.id, { onError: note.failed })}
          >
            Try again
          </Button>
        )}
      </span>
    );
  }
  // Nothing is said while it is not known, as where the server does not answer.
  const words = !seen
    ? ''
    : !seen.analysis
      ? 'Looking at this picture …'
      : proposals.length > 0
        ? `Seen: ${seenWords(proposals)}.`
        : seen.analysis.proposals.length > 0
          ? 'All that was seen is decided.'
          : 'Looked at: nothing found.';
  return (
    <span aria-live="polite" className={proposals.length > 0 ? '' : 'quiet'}>
      {words}
    </span>
  );
}

interface OfferProps {
  original: Original;
  frames: readonly BenchFrame[];
  seen: Seen | undefined;
}

/** Straightens all frames of a picture that leans, as far as nobody has turned them. */
function TiltOffer({ original, frames, seen }: OfferProps) {
  const store = useBenchStore();
  const settings = useBench((bench) => bench.settings.frames);
  const tilt = openTilt(original, seen?.analysis ?? null);
  const leaning = frames.flatMap(({ frame }) => {
    const set = settings[frame.id];
    return set && !isStraightened(set.window) ? [{ id: frame.id, set }] : [];
  });
  if (tilt === null || leaning.length === 0) return null;
  const straighten = () =>
    store.setFrames(
      new Map(
        leaning.map(({ id, set: { window, composed } }) => [id, { composed, window: straightened(window, tilt) }]),
      ),
    );
  return (
    <>
      <span>
        Leans {Math.abs(tilt).toFixed(1)}° to the {tilt > 0 ? 'right' : 'left'}.
      </span>
      <Button size="small" onClick={straighten}>
        Straighten all
      </Button>
      <Button
        size="small"
        type="text"
        aria-label="Dismiss the straightening"
        onClick={() => store.set('originals', original.id, { decided: [...original.decided, { kind: 'tilt' }] })}
      >
        Dismiss
      </Button>
    </>
  );
}

/** Trims artwork to its body, where that lies on an empty margin. */
function BodyOffer({ original, seen }: OfferProps) {
  const store = useBenchStore();
  const body = openBody(original, seen?.analysis ?? null);
  if (!body) return null;
  const decided = [...original.decided, { kind: 'body' as const }];
  return (
    <>
      <span>Empty margin round it.</span>
      <Button size="small" onClick={() => store.set('originals', original.id, { trim: body, decided })}>
        Trim to it
      </Button>
      <Button
        size="small"
        type="text"
        aria-label="Dismiss the trim"
        onClick={() => store.set('originals', original.id, { decided })}
      >
        Dismiss
      </Button>
    </>
  );
}
