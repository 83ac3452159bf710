import './DryRunScreen.css';
import { runCounts } from '@inkwell/core/dryRunning';
import { type DryRun, type DryRunFile, standInNotice } from '@inkwell/core/model';
import { Button, Progress, Segmented } from 'antd';
import dayjs from 'dayjs';
import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { isRunning, useCancelDryRun, useDryRun } from '../../api/projects/dryRuns.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { Failure, FailureLine, Skeleton } from '../../parts/States.tsx';
import { useHeldKey } from '../../parts/useHeldKey.ts';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { useOpenProject } from '../ProjectLayout.tsx';
import { EmptyNetworks } from './EmptyNetworks.tsx';
import { levelOf, runWords } from './outcomeWords.ts';
import { RunWall } from './RunWall.tsx';
import { ShownView } from './ShownView.tsx';

/** A dry run: what the simulated networks took, and what they show of it; all files on a wall, or one of them closely. */
export function DryRunScreen() {
  const { runId = '' } = useParams();
  const { data: run, error, refetch } = useDryRun(runId);
  const [search, setSearch] = useSearchParams();
  if (error && !run) {
    return (
      <div className="page">
        <Failure error={error} again={() => void refetch()} />
      </div>
    );
  }
  if (!run) {
    return (
      <div className="page">
        <Skeleton height={420} />
      </div>
    );
  }
  const which: Which = search.get('look') === 'doubtful' ? 'doubtful' : 'all';
  const files = which === 'all' ? run.files : run.files.filter(({ outcome }) => levelOf(outcome) !== 'fine');
  const open = run.files.find(({ position }) => `${position}` === search.get('file'));
  /** The address is a way back: which files one looks at, and the one that is open. */
  const go = (to: { look?: Which; file?: number }) =>
    setSearch({
      ...((to.look ?? which) === 'doubtful' ? { look: 'doubtful' } : {}),
      ...(to.file === undefined ? {} : { file: `${to.file}` }),
    });
  if (open) {
    return <ShownView run={run} files={files} file={open} onBack={() => go({})} onOpen={(file) => go({ file })} />;
  }
  return (
    <Run
      run={run}
      error={error}
      onAgain={() => void refetch()}
      files={files}
      which={which}
      onWhich={(look) => go({ look })}
      onOpen={(file) => go({ file })}
    />
  );
}

type Which = 'all' | 'doubtful';

function Run(props: {
  run: DryRun;
  /** Why nothing newer is known of it; null where that is so. */
  error: unknown;
  onAgain: () => void;
  /** Those that are looked at. */
  files: readonly DryRunFile[];
  which: Which;
  onWhich: (which: Which) => void;
  onOpen: (position: number) => void;
}) {
  const { run, error, onAgain, files, which, onWhich, onOpen } = props;
  const project = useOpenProject();
  const cancel = useCancelDryRun();
  const note = useUndoNote();
  const [side, setSide] = useState<'shown' | 'delivered'>('shown');
  const [isHeld, setHeld] = useState(false);
  useHeldKey('d', setHeld);
  const counts = runCounts(run);
  const doubtful = run.files.filter(({ outcome }) => levelOf(outcome) !== 'fine').length;
  const back = run.deliveryId ? `/projects/${project.id}/deliver` : `/projects/${project.id}`;
  return (
    <div className="page dry-run">
      <div className="row spread wrap">
        <div>
          <h2>Dry run of {dayjs(run.createdAt).format('D MMM YYYY, HH:mm')}</h2>
          <p className="quiet small" style={{ margin: '3px 0 0' }}>
            {standInNotice}
          </p>
        </div>
        <div className="row wrap">
          <Link to={back}>{run.deliveryId ? 'All deliveries' : 'Back to the bench'}</Link>
          <ForEditors>
            <EmptyNetworks />
            {isRunning(run) && (
              <Button loading={cancel.isPending} onClick={() => cancel.mutate(run.id, { onError: note.failed })}>
                Cancel
              </Button>
            )}
          </ForEditors>
        </div>
      </div>
      <div className="row spread wrap dry-run-line">
        <p role="status" className="dry-run-words">
          {run.failure ? <span className="run-problem">{run.failure}</span> : runWords(run.state, counts)}{' '}
          {run.waiting && <span className="dry-run-waiting">{run.waiting}</span>}
        </p>
        <div className="row wrap">
          <Segmented<Which>
            size="small"
            aria-label="Which files"
            value={which}
            onChange={onWhich}
            options={[
              { value: 'all', label: 'All files' },
              { value: 'doubtful', label: `To look at (${doubtful})` },
            ]}
          />
          <Segmented<'shown' | 'delivered'>
            size="small"
            aria-label="Which pictures"
            value={isHeld ? 'delivered' : side}
            onChange={setSide}
            options={[
              { value: 'shown', label: 'As shown' },
              { value: 'delivered', label: 'Delivered', title: 'Hold D to look at them for a moment' },
            ]}
          />
        </div>
      </div>
      {error !== null && <FailureLine error={error} again={onAgain} />}
      {isRunning(run) && (
        <Progress percent={Math.round((100 * counts.over) / Math.max(1, counts.files))} showInfo={false} />
      )}
      <RunWall run={run} files={files} side={isHeld ? 'delivered' : side} onOpen={onOpen} />
    </div>
  );
}
