import { type Backup, type Backups, formatWeight } from '@inkwell/core/model';
import { Button } from 'antd';
import { useBackups, useIsKeeper } from '../../api/access/backups.ts';
import { counted } from '../../parts/counted.ts';
import { ListTable } from '../../parts/making/ListTable.tsx';
import { FailureLine, Skeleton } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { ago } from '../../parts/when.ts';
import { LostScreen } from '../LostScreen.tsx';

const states: Record<Backup['state'], string> = { making: 'Being made', done: 'Whole', failed: 'Failed' };

/** Backups of everything: what there is, when the next is made, and how one is restored. */
export function BackupsScreen() {
  const isKeeper = useIsKeeper();
  const { query, make } = useBackups();
  const note = useUndoNote();
  if (!isKeeper) return <LostScreen />;
  const { data, error, refetch } = query;
  return (
    <div className="page">
      <h1>Backups</h1>
      <p className="quiet page-about">
        A backup holds everything of one moment: all workspaces with their pictures, projects and deliveries, and who
        may come in.
      </p>
      {!data && (error ? <FailureLine error={error} again={() => void refetch()} /> : <Skeleton height={160} />)}
      {data && (
        <>
          <Planned data={data} isPending={make.isPending} onMake={() => make.mutateAsync().catch(note.failed)} />
          <Made all={data.backups} />
        </>
      )}
      <section className="sheet page-part" aria-labelledby="restore-title">
        <h2 id="restore-title">Made by hand, and restored</h2>
        <p>
          On the machine itself, <code>./inkwell backup FILE</code> makes one while people work,{' '}
          <code>./inkwell backup --check FILE</code> looks whether one is whole, and <code>./inkwell restore FILE</code>{' '}
          puts it into an empty database, there or on another machine. Try that before it is needed.
        </p>
      </section>
    </div>
  );
}

const hoursIn = (hours: number): string => (hours % 24 === 0 ? counted(hours / 24, 'day') : counted(hours, 'hour'));
/** As in “every day”, “every 2 days”. */
const everyWords = (hours: number): string => hoursIn(hours).replace(/^1 /, '');

function Planned({ data, isPending, onMake }: { data: Backups; isPending: boolean; onMake: () => void }) {
  const { plan, isAsked, lastGoodAt, isLate, backups } = data;
  const isMaking = isAsked || backups.some(({ state }) => state === 'making');
  return (
    <section className="sheet page-part" aria-labelledby="plan-title">
      <h2 id="plan-title">By itself</h2>
      {plan ? (
        <p>
          One is made every {everyWords(plan.everyHours)} into <code>{plan.folder}</code>, on the machine of the worker;
          the newest {plan.keep} are kept, {plan.isEncrypted ? 'encrypted' : 'not encrypted'}. You are warned when the
          last good one is older than {hoursIn(plan.warnHours)}.
        </p>
      ) : (
        <p>
          None is made by itself. Start a worker with <code>INKWELL_BACKUP</code> and a folder, best on another disk:
          docs/backup.md says more.
        </p>
      )}
      <p role={isLate ? 'alert' : undefined}>
        {lastGoodAt ? `The last good one is of ${ago(lastGoodAt)}.` : 'There is no good one yet.'}
        {isLate && ' That is too long. Look at what failed below, and make one now.'}
      </p>
      {plan && (
        <Button type={isLate ? 'primary' : 'default'} loading={isPending} disabled={isMaking} onClick={onMake}>
          {isMaking ? 'One is being made …' : 'Make one now'}
        </Button>
      )}
    </section>
  );
}

function Made({ all }: { all: readonly Backup[] }) {
  if (all.length === 0) return null;
  return (
    <section className="sheet page-part" aria-labelledby="made-title">
      <h2 id="made-title">Made</h2>
      <ListTable heads={['Begun', 'Where', 'Files', 'Size', 'State']} hasActions={false}>
        {all.map(({ id, startedAt, path, files, bytes, state, failure }) => (
          <tr key={id}>
            <th scope="row">
              <time dateTime={startedAt} title={new Date(startedAt).toLocaleString('en-GB')}>
                {ago(startedAt)}
              </time>
            </th>
            <td data-label="Where">{path}</td>
            <td data-label="Files">{state === 'done' ? files : '–'}</td>
            <td data-label="Size">{state === 'done' ? formatWeight(bytes, 'MB') : '–'}</td>
            <td data-label="State">
              {states[state]}
              {failure && <span className="quiet small">: {failure}</span>}
            </td>
          </tr>
        ))}
      </ListTable>
    </section>
  );
}
