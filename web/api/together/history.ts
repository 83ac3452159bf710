import { BroughtBackSchema, OpenStepSchema, StepSchema, stepsTogether } from '@inkwell/core/model';
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { api, ask } from '../client.ts';

/** What is known of the steps of all projects. */
export const historyKey = ['history'];

/** What was done to a project, the last step first, page by page. */
export const useHistory = (projectId: string) =>
  useInfiniteQuery({
    queryKey: [...historyKey, projectId],
    queryFn: ({ pageParam: before }) =>
      ask(z.array(StepSchema), `/projects/${projectId}/history${before === null ? '' : `?before=${before}`}`),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => (page.length < stepsTogether ? null : (page.at(-1)?.id ?? null)),
  });

/** A step that is looked at. @param step null where none is */
export const useStep = (projectId: string, step: number | null, frames: 'touched' | 'all') =>
  useQuery({
    queryKey: ['step', projectId, step, frames],
    queryFn: () => ask(OpenStepSchema, `/projects/${projectId}/history/${step}?frames=${frames}`),
    enabled: step !== null,
    // What was done does not change.
    staleTime: Number.POSITIVE_INFINITY,
  });

/** Makes a project what it was after a step. */
export function useBringBack(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (step: number) =>
      ask(BroughtBackSchema, `/projects/${projectId}/history/${step}/bring-back`, { method: 'POST' }),
    onSuccess: () =>
      Promise.all(
        [['project', projectId], ['measured', projectId], ['projects'], ['originals'], historyKey].map((queryKey) =>
          client.invalidateQueries({ queryKey }),
        ),
      ),
  });
}

/** A frame as it was before a step, or after it. */
export const thenUrl = (
  { projectId, step, frameId }: { projectId: string; step: number; frameId: string },
  is: 'before' | 'after',
  planHash: string,
  width: number,
): string =>
  `${api}/projects/${projectId}/history/${step}/frames/${frameId}/picture?is=${is}&plan=${planHash}&width=${width}`;
