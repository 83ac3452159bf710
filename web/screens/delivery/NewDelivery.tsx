import { overdueDays } from '@inkwell/core/bookkeeping';
import { countingVerdict, isLeftOut, type OpenProject } from '@inkwell/core/model';
import { fileNames, nameable, patternProblem, patternWords } from '@inkwell/core/naming';
import { postingWords } from '@inkwell/core/posting';
import { useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { z } from 'zod';
import { useSpecBook } from '../../api/library/specBook.ts';
import { useDeliver } from '../../api/projects/deliveries.ts';
import { saveProject } from '../../api/projects/projects.ts';
import { counted } from '../../parts/counted.ts';
import { today } from '../../parts/today.ts';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { useProjectFrames } from '../projectFrames.ts';

const namesShown = 5;

const OnlySchema = z.object({ originalIds: z.array(z.string()) });

/** What a delivery would be made of, what is to be known of that before, and the way to make it. */
export function NewDelivery({ project }: { project: OpenProject }) {
  const deliver = useDeliver(project.id);
  const note = useUndoNote();
  const [pattern, setPattern] = useState(project.pattern);
  const problem = patternProblem(pattern);

  const client = useQueryClient();
  // The next delivery is named as this one was. A change that is made elsewhere meanwhile goes first.
  const keepPattern = async () => {
    if (pattern === project.pattern) return;
    await saveProject(project.id, project.version, { pattern }).catch(note.failed);
    await client.invalidateQueries({ queryKey: ['project', project.id] });
  };

  const { frames: all, isDone } = useProjectFrames(project);
  const { state } = useLocation();
  // Whoever comes from pictures that were selected on the bench delivers those.
  const [only, setOnly] = useState(() => OnlySchema.safeParse(state).data?.originalIds ?? null);
  const frames = useMemo(() => {
    const ids = only && new Set(only);
    return all.filter(({ frame, original }) => !isLeftOut(frame) && (!ids || ids.has(original.id)));
  }, [all, only]);
  const leftOut = all.filter(({ frame }) => isLeftOut(frame)).length;
  const doubted = frames.filter(({ frame, planHash }) => countingVerdict(frame, planHash) === 'look again').length;
  const named = useMemo(
    () =>
      frames.flatMap(({ frame, original, at, pieces }) => pieces.map((piece) => nameable(original, at, frame, piece))),
    [frames],
  );
  const names = useMemo(() => (problem ? [] : fileNames(pattern, named)), [problem, pattern, named]);
  const fileCount = frames.reduce((sum, one) => sum + one.pieces.length, 0);
  const blocked = frames.filter((one) => one.findings.some((finding) => finding.level === 'blocker'));
  const cautious = frames.filter((one) => one.findings.some((finding) => finding.level === 'caution'));
  const measuring = frames.filter((one) => !one.weight && !one.failure).length;
  const failed = frames.filter((one) => !one.weight && one.failure);
  const untold = frames.filter(({ frame, original }) => postingWords(original, project, frame).altText === '');
  const { data: sheets = [] } = useSpecBook(project);
  const old = sheets.filter(
    (sheet) => overdueDays(sheet, today()) !== null && frames.some(({ at }) => at.network.slug === sheet.slug),
  );
  const seen = frames.flatMap(({ frame, planHash }) => (planHash ? [{ frameId: frame.id, plan: planHash }] : []));

  return (
    <section className="sheet delivery-new" aria-label="New delivery">
      <h2>New delivery</h2>
      {only && (
        <p style={{ margin: 0 }}>
          Only the frames of {counted(only.length, 'picture')} that {only.length === 1 ? 'was' : 'were'} selected on the
          bench.{' '}
          <Button size="small" onClick={() => setOnly(null)}>
            Deliver all pictures
          </Button>
        </p>
      )}
      <label className="delivery-pattern" htmlFor="name-pattern">
        <span>Name pattern</span>
        <Input
          value={pattern}
          id="name-pattern"
          {...(problem ? { status: 'error' as const } : {})}
          onChange={(event) => setPattern(event.target.value)}
        />
      </label>
      {problem ? (
        <p role="alert" className="delivery-problem">
          {problem}
        </p>
      ) : (
        <p className="quiet small" style={{ margin: '5px 0 0' }}>
          Words: {patternWords.map((word) => `{${word}}`).join(' ')}. Names are safe on every file system. Equal names
          are numbered.
        </p>
      )}
      <ol className="delivery-names" aria-label="File names">
        {names.slice(0, namesShown).map((name) => (
          <li key={name}>{name}</li>
        ))}
        {names.length > namesShown && <li className="quiet">and {names.length - namesShown} more</li>}
      </ol>
      <ul className="delivery-state">
        {blocked.map(({ frame, original, at, findings }) => (
          <li key={frame.id} className="delivery-problem">
            {original.name}, {at.network.name} {at.place.name}: {findings[0]?.text}{' '}
            <Link to={`/projects/${project.id}?original=${original.id}&frame=${frame.id}`}>Look at it</Link>
          </li>
        ))}
        {cautious.length > 0 && (
          <li>
            {cautious.length} of {counted(frames.length, 'frame')} {cautious.length === 1 ? 'has' : 'have'} a caution.{' '}
            <Link to={`/projects/${project.id}`}>See them on the bench</Link>
          </li>
        )}
        {doubted > 0 && (
          <li>
            {counted(doubted, 'frame')} {doubted === 1 ? 'is' : 'are'} to be looked at again.{' '}
            <Link to={`/projects/${project.id}/look-over?show=look+again`}>See {doubted === 1 ? 'it' : 'them'}</Link>
          </li>
        )}
        {leftOut > 0 && (
          <li>
            {counted(leftOut, 'frame')} {leftOut === 1 ? 'is' : 'are'} left out, as somebody has said.{' '}
            <Link to={`/projects/${project.id}/look-over?show=left+out`}>See {leftOut === 1 ? 'it' : 'them'}</Link>
          </li>
        )}
        {failed.map(({ frame, original, at, failure }) => (
          <li key={frame.id} className="delivery-problem">
            {original.name}, {at.network.name} {at.place.name} could not be measured: {failure}{' '}
            <Link to={`/projects/${project.id}?original=${original.id}&frame=${frame.id}`}>Look at it</Link>
          </li>
        ))}
        {untold.length > 0 && (
          <li className="quiet">
            {untold.length} of {counted(frames.length, 'frame')} {untold.length === 1 ? 'has' : 'have'} no alternative
            text.
          </li>
        )}
        {old.map((sheet) => (
          <li key={sheet.slug}>
            The numbers of {sheet.name} were checked {counted(overdueDays(sheet, today()) ?? 0, 'day')} ago.{' '}
            <Link to={`/spec-book/${sheet.slug}`}>Look them up again</Link>
          </li>
        ))}
        {measuring > 0 && (
          <li className="quiet">Still being weighed: {counted(measuring, 'frame')}, which can be delivered anyway.</li>
        )}
      </ul>
      <Button
        type="primary"
        size="large"
        disabled={frames.length === 0 || !isDone || problem !== null || seen.length < frames.length}
        loading={deliver.isPending}
        onClick={() =>
          deliver.mutate(
            { pattern, seen, ...(only ? { only: frames.map(({ frame }) => frame.id) } : {}) },
            { onSuccess: keepPattern, onError: note.failed },
          )
        }
      >
        Deliver {counted(fileCount, 'file')}
      </Button>
      <p className="quiet small">
        Every file is opened again and checked before it counts: dimensions, format and bytes.
      </p>
    </section>
  );
}
