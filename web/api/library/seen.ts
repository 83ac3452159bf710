import { analyserVersion, type OpenProject, type Seen, SeenSchema } from '@inkwell/core/model';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { z } from 'zod';
import { remembering } from '../../parts/many/remembering.ts';
import { ask, tell } from '../client.ts';

const lookingPollMs = 1000;

/** Whether nothing more is to be seen in an original for now. */
const isLookedAt = ({ analysis, failure }: Seen): boolean =>
  failure !== null || (analysis !== null && analysis.version >= analyserVersion);

/** What was seen in the originals of a project; asked again while one of them is still to be looked at. */
export function useSeen({ id: projectId, originals }: Pick<OpenProject, 'id' | 'originals'>) {
  const client = useQueryClient();
  // What was answered of other originals says nothing of these, and whether one of them is still to be looked at.
  const ids = useMemo(() => originals.map(({ id }) => id).join(), [originals]);
  const queryKey = ['seen', projectId, ids];
  return useQuery({
    queryKey,
    placeholderData: keepPreviousData,
    queryFn: async () => {
      const before = client.getQueryData<Seen[]>(queryKey);
      const seen = await ask(z.array(SeenSchema), `/projects/${projectId}/seen`);
      // Frames follow from what is seen: once that is known, something else is measured.
      if (before && versionsOf(before) !== versionsOf(seen)) {
        void client.invalidateQueries({ queryKey: ['measured', projectId] });
      }
      return seen;
    },
    refetchInterval: ({ state }) => (state.data && !state.data.every(isLookedAt) ? lookingPollMs : false),
  });
}

const versionsOf = (seen: readonly Seen[]) =>
  seen.map(({ originalId, analysis }) => `${originalId} ${analysis?.version ?? 0}`).join();

/** How far the program is with one of the originals; undefined while that is not known. */
export const seenOf = (seen: readonly Seen[] | undefined, originalId: string): Seen | undefined =>
  seen && byOriginal(seen, [], () => new Map(seen.map((one) => [one.originalId, one]))).get(originalId);

const byOriginal = remembering<readonly Seen[], ReadonlyMap<string, Seen>>();

/** Has an original looked at again, where that did not work. */
export function useLookAgain(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (originalId: string) => tell(`/originals/${originalId}/look`, { method: 'POST' }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['seen', projectId] }),
  });
}
