import type { Measured, OpenProject, Planned } from '@inkwell/core/model';
import type { QueryClient } from '@tanstack/react-query';
import { ApiError, type Saved, sentenceOf } from '../../../api/client.ts';
import { type Finishes, saveFinish } from '../../../api/library/finishes.ts';
import { saveOriginal } from '../../../api/library/originals.ts';
import { saveFrame } from '../../../api/projects/frames.ts';
import { saveProject } from '../../../api/projects/projects.ts';
import { Bench } from './bench.ts';
import { type Kind, looseSettingsOf, type RowOf, type SettingsOf } from './kinds.ts';
import { pageName } from './pageName.ts';
import type { Row } from './rowMachine.ts';
import { type Outcome, Saver } from './saver.ts';
import { Shelf } from './shelf.ts';

const retryMs = 2500;

/** How a row of each kind is sent. */
type Senders = { [K in Kind]: (id: string, version: number, settings: SettingsOf<K>) => Promise<Saved<RowOf<K>>> };
/** The same where the kind is only known while the program runs: the bench sends a row's settings as the kind that it is. */
type LooseSenders = Record<Kind, (id: string, version: number, settings: object) => Promise<Saved<Row>>>;

/** @param hearPlanned hears what the plan of a frame is called since it was saved */
const sendersTo = (hearPlanned: (frameId: string, planned: Planned) => void): Senders => ({
  async frames(id, version, settings) {
    const saved = await saveFrame(id, version, settings);
    const { planned, ...row } = 'done' in saved ? saved.done : saved.elsewhere;
    if (planned) hearPlanned(id, planned);
    return 'done' in saved ? { done: row } : { elsewhere: row };
  },
  originals: saveOriginal,
  projects: saveProject,
  finishes: saveFinish,
});

/** Too many requests, or one that took too long: asked again later, it is answered. */
const passing = [408, 429];

async function send(
  senders: LooseSenders,
  kind: Kind,
  id: string,
  version: number,
  settings: object,
): Promise<Outcome> {
  try {
    const result = await senders[kind](id, version, settings);
    return 'done' in result ? { is: 'saved', row: result.done } : { is: 'elsewhere', row: result.elsewhere };
  } catch (error) {
    const status = error instanceof ApiError ? error.status : 0;
    if (status === 404) return { is: 'gone' };
    const isFinal = status >= 400 && status < 500 && !passing.includes(status);
    return isFinal ? { is: 'refused', reason: sentenceOf(error) } : { is: 'unheard' };
  }
}

/** Puts what the server has of a row where the screens read it, and has read anew what follows from it. */
function intoCache(client: QueryClient, projectId: string, kind: Kind, id: string, row: Row | null): void {
  const replaced = <One extends Row>(rows: One[]) => rows.map((one) => (one.id === id ? { ...one, ...row } : one));
  if (!row) {
    void client.invalidateQueries({ queryKey: kind === 'finishes' ? ['finishes'] : ['project', projectId] });
    return;
  }
  if (kind === 'finishes') {
    client.setQueryData<Finishes>(['finishes'], (all) => all && { ...all, finishes: replaced(all.finishes) });
  } else {
    client.setQueryData<OpenProject>(['project', projectId], (project) => {
      if (!project) return project;
      if (kind === 'projects') return { ...project, ...looseSettingsOf.projects(row), version: row.version };
      return kind === 'frames'
        ? { ...project, frames: replaced(project.frames) }
        : { ...project, originals: replaced(project.originals) };
    });
  }
  void client.invalidateQueries({ queryKey: ['measured', projectId] });
  if (kind === 'projects') void client.invalidateQueries({ queryKey: ['finishes'] });
}

/** Keeps what the plan of a frame is called. What was measured of another plan is not about this one. */
function plannedIntoCache(client: QueryClient, projectId: string, frameId: string, planned: Planned): void {
  const unmeasured = { weight: null, detail: null, figures: null, failure: null };
  client.setQueryData<Measured[]>(['measured', projectId], (all) =>
    all?.map((one) => {
      if (one.frameId !== frameId) return one;
      return { ...one, ...(one.planHash === planned.planHash ? {} : unmeasured), ...planned };
    }),
  );
}

/** Opens the bench of a project, with what this page kept of it, and saves it from now on. */
export function openBench(projectId: string, client: QueryClient): Bench {
  const bench = new Bench(new Shelf(projectId, () => localStorage, pageName()));
  const senders = sendersTo((frameId, planned) => plannedIntoCache(client, projectId, frameId, planned));
  new Saver(bench, {
    send: (...row) => send(senders as LooseSenders, ...row),
    heard: (kind, id, row) => intoCache(client, projectId, kind, id, row),
    later: (task) => setTimeout(task, retryMs),
  });
  addEventListener('pagehide', () => bench.flush());
  return bench;
}
