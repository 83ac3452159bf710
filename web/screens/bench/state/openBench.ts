import type { Frame, FrameChange, FrameSettings, Planned } from '@inkwell/core/model';
import type { QueryClient } from '@tanstack/react-query';
import { ApiError, type Saved, sentenceOf } from '../../../api/client.ts';
import { saveFinish } from '../../../api/library/finishes.ts';
import { saveOriginal } from '../../../api/library/originals.ts';
import { saveFrame, saveFrames } from '../../../api/projects/frames.ts';
import { saveProject } from '../../../api/projects/projects.ts';
import { Bench } from './bench.ts';
import { intoCache, plannedIntoCache } from './benchCache.ts';
import { frameChange } from './frameChange.ts';
import type { Kind, RowOf, SettingsOf } from './kinds.ts';
import { pageName } from './pageName.ts';
import type { Row } from './rowMachine.ts';
import { type Outcome, Saver, type SentRow } from './saver.ts';
import { Shelf } from './shelf.ts';

const retryMs = 2500;

/** How a row of each kind is sent. */
type Senders = {
  [K in Kind]: (id: string, version: number, change: ChangeOf<K>) => Promise<Saved<RowOf<K>>>;
};
/** All that is set of a row; of a frame, what is set otherwise than it is saved. */
type ChangeOf<K extends Kind> = K extends 'frames' ? FrameChange : SettingsOf<K>;
/** The same where the kind is only known while the program runs: the bench sends a row's settings as the kind that it is. */
type LooseSenders = Record<Kind, (id: string, version: number, change: object) => Promise<Saved<Row>>>;

/** @param hearPlanned hears what the plan of a frame is called since it was saved */
const sendersTo = (hearPlanned: (frameId: string, planned: Planned) => void): Senders => ({
  async frames(id, version, change) {
    const saved = await saveFrame(id, version, change);
    const { planned, ...row } = 'done' in saved ? saved.done : saved.elsewhere;
    if (planned) hearPlanned(id, planned);
    return 'done' in saved ? { done: row } : { elsewhere: row };
  },
  originals: saveOriginal,
  projects: saveProject,
  finishes: saveFinish,
});

/** Somebody was signed out and signs in again, too many requests, or one that took too long: asked again later, it is answered. */
const passing = [401, 408, 429];

async function send(senders: LooseSenders, kind: Kind, id: string, version: number, change: object): Promise<Outcome> {
  try {
    const result = await senders[kind](id, version, change);
    return 'done' in result ? { is: 'saved', row: result.done } : { is: 'elsewhere', row: result.elsewhere };
  } catch (error) {
    return outcomeOf(error);
  }
}

/** What has come of a row whose save was not answered with what there is now. */
function outcomeOf(error: unknown): Outcome {
  const status = error instanceof ApiError ? error.status : 0;
  if (status === 404) return { is: 'gone' };
  const isFinal = status >= 400 && status < 500 && !passing.includes(status);
  return isFinal ? { is: 'refused', reason: sentenceOf(error) } : { is: 'unheard' };
}

/** Sends rows of a kind: frames together, where there are many. */
async function sendRows(
  projectId: string,
  senders: LooseSenders,
  kind: Kind,
  rows: readonly SentRow[],
): Promise<Outcome[]> {
  const asked = rows.map(({ id, version, settings, saved }) => ({
    id,
    version,
    // Of thousands of frames not all settings go over the wire, where one has changed.
    change: kind === 'frames' ? frameChange(saved as Frame, settings as FrameSettings) : settings,
  }));
  const [first] = asked;
  if (!first) return [];
  if (asked.length === 1) return [await send(senders, kind, first.id, first.version, first.change)];
  try {
    return await saveFrames(projectId, asked);
  } catch (error) {
    const outcome = outcomeOf(error);
    return rows.map(() => outcome);
  }
}

/** Opens the bench of a project, with what this page kept of it, and saves it from now on. */
export function openBench(projectId: string, client: QueryClient): Bench {
  const bench = new Bench(new Shelf(projectId, () => localStorage, pageName()));
  const senders = sendersTo((frameId, planned) => plannedIntoCache(client, projectId, frameId, planned));
  new Saver(bench, {
    send: (kind, rows) => sendRows(projectId, senders as LooseSenders, kind, rows),
    heard: (kind, rows) => intoCache(client, projectId, kind, rows),
    later: (task) => setTimeout(task, retryMs),
  });
  addEventListener('pagehide', () => bench.flush());
  return bench;
}
