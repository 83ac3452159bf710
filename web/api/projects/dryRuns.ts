import { type DryRun, DryRunSchema, DryRunSummarySchema, NetworkStatusSchema } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { api, ask, tell } from '../client.ts';

const workingPollMs = 700;

/** Whether there is more to come of a run. */
export const isRunning = ({ state }: Pick<DryRun, 'state'>): boolean => state === 'waiting' || state === 'working';

/** The dry runs of a project in numbers, newest first. */
export function useDryRuns(projectId: string) {
  return useQuery({
    queryKey: ['dryRuns', projectId],
    queryFn: () => ask(z.array(DryRunSummarySchema), `/dry-runs?project=${projectId}`),
    refetchInterval: ({ state }) => (state.data?.some(isRunning) ? workingPollMs : false),
  });
}

/** One dry run; asked again while it goes on. */
export function useDryRun(id: string) {
  return useQuery({
    queryKey: ['dryRun', id],
    queryFn: () => ask(DryRunSchema, `/dry-runs/${id}`),
    refetchInterval: ({ state }) => (state.data && isRunning(state.data) ? workingPollMs : false),
  });
}

/** What a dry run is asked for: of a delivery, or of one frame as it was seen. */
export type DryRunRequest = { deliveryId: string } | { frameId: string; plan: string };

export function useStartDryRun(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (asked: DryRunRequest) => ask(DryRunSchema, '/dry-runs', { method: 'POST', body: asked }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['dryRuns', projectId] }),
  });
}

export function useCancelDryRun() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => ask(DryRunSchema, `/dry-runs/${id}/cancel`, { method: 'POST' }),
    onSettled: (_, __, id) => client.invalidateQueries({ queryKey: ['dryRun', id] }),
  });
}

/** The simulated networks that are running. */
export function useNetworks() {
  return useQuery({ queryKey: ['networks'], queryFn: () => ask(z.array(NetworkStatusSchema), '/networks') });
}

export const useEmptyNetworks = () => useMutation({ mutationFn: () => tell('/networks/empty', { method: 'POST' }) });

/** A picture that a run uploads, or that came back. @param width in small; left out for the picture itself */
export const runPictureUrl = ({ id }: Pick<DryRun, 'id'>, sha256: string, width?: number) =>
  `${api}/dry-runs/${id}/pictures/${sha256}${width ? `?width=${width}` : ''}`;
