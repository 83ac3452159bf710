import type { Finishes, OpenProject, Planned } from '@inkwell/core/model';
import type { QueryClient } from '@tanstack/react-query';
import { debounce } from 'es-toolkit';
import { askMeasured, changeMeasured } from '../../../api/projects/measured.ts';
import { type Kind, looseSettingsOf } from './kinds.ts';
import type { Row } from './rowMachine.ts';

/** Puts what the server has of rows of a kind where the screens read it, and has read anew what follows from it. */
export function intoCache(
  client: QueryClient,
  projectId: string,
  kind: Kind,
  heard: ReadonlyMap<string, Row | null>,
): void {
  // Rows that nothing was heard of stay the same objects: nothing that follows from them is worked out again.
  const replaced = <One extends Row>(rows: One[]) =>
    rows.map((one) => {
      const now = heard.get(one.id);
      return now ? { ...one, ...now } : one;
    });
  const found = [...heard.values()].filter((row) => row !== null);
  if (found.length < heard.size) {
    void client.invalidateQueries({ queryKey: kind === 'finishes' ? ['finishes'] : ['project', projectId] });
  }
  const [first] = found;
  if (!first) return;
  if (kind === 'finishes') {
    client.setQueryData<Finishes>(['finishes'], (all) => all && { ...all, finishes: replaced(all.finishes) });
  } else {
    client.setQueryData<OpenProject>(['project', projectId], (project) => {
      if (!project) return project;
      if (kind === 'projects') return { ...project, ...looseSettingsOf.projects(first), version: first.version };
      return kind === 'frames'
        ? { ...project, frames: replaced(project.frames) }
        : { ...project, originals: replaced(project.originals) };
    });
  }
  if (kind !== 'frames') void askMeasured(client, projectId);
  else if (heard.size <= fewFrames) void askMeasured(client, projectId, new Set(heard.keys()));
  else askWhenAllCame(client, projectId, heard.keys());
  if (kind === 'projects') void client.invalidateQueries({ queryKey: ['finishes'] });
}

/** What so many frames are measured as is asked at once: somebody looks at them. */
const fewFrames = 20;
/** So long after the last of many frames was heard of, it is asked what they are measured as. */
const restMs = 300;

/** Frames of projects that were heard of, and that nobody has asked about since. */
const heardOf = new Map<string, { ids: Set<string>; ask: () => void }>();

/** Asks what many frames are measured as, once no more of them come: until then the server has their saves to do. */
function askWhenAllCame(client: QueryClient, projectId: string, frameIds: Iterable<string>): void {
  const ids = new Set<string>();
  const waiting = heardOf.get(projectId) ?? {
    ids,
    ask: debounce(() => {
      heardOf.delete(projectId);
      void askMeasured(client, projectId, ids);
    }, restMs),
  };
  heardOf.set(projectId, waiting);
  for (const id of frameIds) waiting.ids.add(id);
  waiting.ask();
}

/** Keeps what the plan of a frame is called. What was measured of another plan is not about this one. */
export function plannedIntoCache(client: QueryClient, projectId: string, frameId: string, planned: Planned): void {
  const unmeasured = { weight: null, detail: null, figures: null, failure: null };
  changeMeasured(client, projectId, frameId, (one) => ({
    ...one,
    ...(one.planHash === planned.planHash ? {} : unmeasured),
    ...planned,
  }));
}
