import { type Frame, isSettled, type Measured, MeasuredSchema, type OpenProject } from '@inkwell/core/model';
import { type QueryClient, type QueryKey, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import PQueue from 'p-queue';
import { useCallback, useMemo, useState } from 'react';
import { z } from 'zod';
import { ask } from '../client.ts';

const pollMs = 700;

/** So many frames are asked about at once, or a few more, so that all frames of an original are asked about together. */
const pageFrames = 250;
/** The server answers no more. */
const mostTogether = 500;

/** One request at a time, so that no answer overtakes a newer one; what is in sight goes first. */
const queue = new PQueue({ concurrency: 1 });
const priorities = { shown: 1, page: 0 };

const keyOf = (projectId: string, what: 'page' | 'shown') => ['measured', projectId, what];

/** Keys with thousands of ids are looked at with every render. */
const hashOf = (key: QueryKey): string => key.map(String).join();

async function askFor(
  projectId: string,
  frameIds: readonly string[],
  priority: number,
  signal: AbortSignal,
): Promise<Measured[]> {
  const answer = await queue.add(
    () => ask(z.array(MeasuredSchema), `/projects/${projectId}/measured`, { method: 'POST', body: { frameIds } }),
    { priority, signal },
  );
  if (!answer) throw new Error('The request was taken out of its queue.');
  return answer;
}

/** The ids of frames, in pages of which each begins with another original, where that has not too many itself. */
function pagesOf(frames: readonly Frame[]): string[][] {
  const pages: string[][] = [];
  let last: string | null = null;
  for (const { id, originalId } of frames) {
    const page = pages.at(-1);
    const room = originalId === last ? mostTogether : pageFrames;
    if (page && page.length < room) page.push(id);
    else pages.push([id]);
    last = originalId;
  }
  return pages;
}

/** What is known already of some frames, whichever page they stood on. */
function knownOf(client: QueryClient, projectId: string, frameIds: readonly string[]): Measured[] | undefined {
  const wanted = new Set(frameIds);
  const known = new Map<string, Measured>();
  for (const [, page] of client.getQueriesData<Measured[]>({ queryKey: keyOf(projectId, 'page') })) {
    for (const one of page ?? []) if (wanted.has(one.frameId)) known.set(one.frameId, one);
  }
  return known.size > 0 ? [...known.values()] : undefined;
}

export interface MeasuredFrames {
  /** By frame; what is not there is not known yet. */
  byFrame: ReadonlyMap<string, Measured>;
  /** Whether some of it was not told of yet. */
  isPending: boolean;
  error: unknown;
  again: () => void;
}

type Page = Measured[] | undefined;

/**
 * Puts pages together. Pages are asked about again and again, and mostly say what they said before: then all of it stays the same
 * map, and whoever follows from it has nothing to do.
 */
function puttingTogether() {
  let known: { pages: readonly Page[]; byFrame: ReadonlyMap<string, Measured> } = { pages: [], byFrame: new Map() };
  return (told: readonly { data?: Page; error: unknown }[]) => {
    const pages = told.map(({ data }) => data);
    const isSame = pages.length === known.pages.length && pages.every((page, index) => page === known.pages[index]);
    if (!isSame) {
      known = { pages, byFrame: new Map(pages.flatMap((page = []) => page.map((one) => [one.frameId, one] as const))) };
    }
    return {
      byFrame: known.byFrame,
      isPending: pages.includes(undefined),
      error: told.find(({ error }) => error !== null)?.error ?? null,
    };
  };
}

/**
 * What was measured of the frames of a project; asked again while something is still being measured. A project with thousands is told of
 * page by page, and every page is asked about the more seldom the more there are.
 */
export function useMeasured({ id, frames }: OpenProject): MeasuredFrames {
  const client = useQueryClient();
  const pages = useMemo(() => pagesOf(frames), [frames]);
  const [combine] = useState(puttingTogether);
  const told = useQueries({
    queries: pages.map((frameIds) => ({
      queryKey: [...keyOf(id, 'page'), frameIds],
      queryKeyHashFn: hashOf,
      queryFn: ({ signal }: { signal: AbortSignal }) => askFor(id, frameIds, priorities.page, signal),
      initialData: () => knownOf(client, id, frameIds),
      initialDataUpdatedAt: 0,
      refetchInterval: ({ state }: { state: { data: Measured[] | undefined } }) =>
        isOpen(state.data) ? pollMs * pages.length : (false as const),
    })),
    combine,
  });
  const again = useCallback(() => void client.refetchQueries({ queryKey: ['measured', id] }), [client, id]);
  return { ...told, again };
}

/** Whether something of some frames is still being measured. */
const isOpen = (measured: readonly Measured[] | undefined): boolean =>
  measured !== undefined && !measured.every(isSettled);

/** Asks about the frames in sight more often than about their page, where there are many pages. */
export function useShownMeasured({ id, frames }: OpenProject, originalId: string | undefined): void {
  const client = useQueryClient();
  const frameIds = useMemo(() => {
    const shown = frames.filter((frame) => frame.originalId === originalId);
    return shown.slice(0, mostTogether).map((frame) => frame.id);
  }, [frames, originalId]);
  useQuery({
    queryKey: [...keyOf(id, 'shown'), frameIds],
    queryKeyHashFn: hashOf,
    queryFn: async ({ signal }) => {
      const shown = await askFor(id, frameIds, priorities.shown, signal);
      putIn(client, id, shown);
      return shown;
    },
    enabled: frames.length > pageFrames && frameIds.length > 0,
    refetchInterval: ({ state }) => (isOpen(state.data) ? pollMs : false),
  });
}

/** Puts what is known of some frames in the place of what their pages say. */
function putIn(client: QueryClient, projectId: string, newer: readonly Measured[]): void {
  const byId = new Map(newer.map((one) => [one.frameId, one]));
  client.setQueriesData<Measured[]>({ queryKey: keyOf(projectId, 'page') }, (page) =>
    page?.some(({ frameId }) => byId.has(frameId)) ? page.map((one) => byId.get(one.frameId) ?? one) : page,
  );
}

/** Keeps something else of one frame, where anything is known of it. */
export function changeMeasured(
  client: QueryClient,
  projectId: string,
  frameId: string,
  change: (measured: Measured) => Measured,
): void {
  const [known] = knownOf(client, projectId, [frameId]) ?? [];
  if (known) putIn(client, projectId, [change(known)]);
}

/** Has some frames of a project asked about again, or all of them: they were set otherwise. */
export const askMeasured = (
  client: QueryClient,
  projectId: string,
  frameIds: ReadonlySet<string> | null = null,
): Promise<void> =>
  client.invalidateQueries({
    queryKey: ['measured', projectId],
    predicate: ({ queryKey: [, , , ids] }) =>
      frameIds === null || (Array.isArray(ids) && ids.some((id) => frameIds.has(id))),
  });
