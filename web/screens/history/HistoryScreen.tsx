import './HistoryScreen.css';
import type { Step } from '@inkwell/core/model';
import { Button } from 'antd';
import { useHistory } from '../../api/together/history.ts';
import { Empty, FailureLine, Skeleton } from '../../parts/States.tsx';
import { initialsOf } from '../../parts/shell/initials.ts';
import { useAddress } from '../../parts/useAddress.ts';
import { ago } from '../../parts/when.ts';
import { useOpenProject } from '../ProjectLayout.tsx';
import { OpenStepView } from './OpenStepView.tsx';
import { stepWords } from './stepWords.ts';

/** What was done to a project, by whom and when: each step can be looked at, and brought back. */
export function HistoryScreen() {
  const project = useOpenProject();
  const [search, go] = useAddress();
  const { data, error, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } = useHistory(project.id);
  const steps = data?.pages.flat() ?? [];
  const asked = Number(search.get('step'));
  const chosen = steps.find(({ id }) => id === asked)?.id ?? (asked > 0 ? asked : (steps[0]?.id ?? null));
  if (!data) {
    return (
      <div className="page">
        {error ? <FailureLine error={error} again={() => void refetch()} /> : <Skeleton height={420} />}
      </div>
    );
  }
  if (steps.length === 0) {
    return (
      <div className="page">
        <Empty title="No history yet">What is done from now on stands here, step by step.</Empty>
      </div>
    );
  }
  return (
    <section className="history" aria-label="History">
      <nav className="history-steps" aria-label="Steps">
        <ol>
          {steps.map((step) => (
            <li key={step.id}>
              <StepButton
                step={step}
                isChosen={step.id === chosen}
                isLast={step.id === steps[0]?.id}
                onChoose={() => go({ step: String(step.id) })}
              />
            </li>
          ))}
        </ol>
        {hasNextPage && (
          <Button size="small" loading={isFetchingNextPage} onClick={() => void fetchNextPage()}>
            Earlier steps
          </Button>
        )}
      </nav>
      {chosen !== null && (
        <OpenStepView key={chosen} projectId={project.id} step={chosen} isLast={chosen === steps[0]?.id} />
      )}
    </section>
  );
}

function StepButton(props: { step: Step; isChosen: boolean; isLast: boolean; onChoose: () => void }) {
  const { step, isChosen, isLast, onChoose } = props;
  const { who, at } = step;
  return (
    <button type="button" className="plain-button history-step" aria-pressed={isChosen} onClick={onChoose}>
      {who && (
        <span aria-hidden className="history-who">
          {initialsOf(who)}
        </span>
      )}
      <span className="history-words">
        {stepWords(step).map((sentence) => (
          <span key={sentence}>{sentence}</span>
        ))}
        <span className="quiet small">
          {who && `${who}, `}
          <time dateTime={at} title={new Date(at).toLocaleString('en-GB')}>
            {ago(at)}
          </time>
          {isLast && ', as it is now'}
        </span>
      </span>
    </button>
  );
}
