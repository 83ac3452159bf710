import { analyserVersion, type Seen, SeenSchema } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { z } from 'zod';
import { ask, tell } from './client.ts';

const lookingPollMs = 1000;

/** Whether nothing more is to be seen in an original for now. */
const isLookedAt = ({ analysis, failure }: Seen): boolean =>
  failure !== null || (analysis !== null && analysis.version >= analyserVersion);

/** What was seen in the originals of a project; asked again while one of them is still to be looked at. */
export function useSeen(projectId: string) {
  const client = useQueryClient();
  const query = useQuery({
    queryKey: ['seen', projectId],
    queryFn: () => ask(z.array(SeenSchema), `/projects/${projectId}/seen`),
    refetchInterval: ({ state }) => (state.data && !state.data.every(isLookedAt) ? lookingPollMs : false),
  });
  // Frames follow from what is seen: once that is known, something else is measured.
  const known = query.data?.map(({ originalId, analysis }) => `${originalId} ${analysis?.version ?? 0}`).join();
  useEffect(() => {
    if (known) void client.invalidateQueries({ queryKey: ['measured', projectId] });
  }, [client, known, projectId]);
  return query;
}

/** Has an original looked at again, where that did not work. */
export function useLookAgain(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (originalId: string) => tell(`/originals/${originalId}/look`, { method: 'POST' }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['seen', projectId] }),
  });
}
