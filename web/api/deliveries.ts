import { type Delivery, DeliverySchema } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask } from './client.ts';

const workingPollMs = 500;
const isOpen = (delivery: Delivery) => delivery.state === 'waiting' || delivery.state === 'working';

/** The deliveries of a project, newest first; asked again while one is being made. */
export function useDeliveries(projectId: string) {
  return useQuery({
    queryKey: ['deliveries', projectId],
    queryFn: () => ask(z.array(DeliverySchema), `/deliveries?project=${projectId}`),
    refetchInterval: ({ state }) => (state.data?.some(isOpen) ? workingPollMs : false),
  });
}

export function useDeliver(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    /** @param seen the plans of the frames as they are shown */
    mutationFn: ({ pattern, seen }: { pattern: string; seen: { frameId: string; plan: string }[] }) =>
      ask(DeliverySchema, '/deliveries', { method: 'POST', body: { projectId, pattern, seen } }),
    // What has changed meanwhile is shown next.
    onError: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: ['project', projectId] }),
        client.invalidateQueries({ queryKey: ['measured', projectId] }),
      ]),
    onSuccess: () => client.invalidateQueries({ queryKey: ['deliveries', projectId] }),
  });
}

export function useCancelDelivery(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => ask(DeliverySchema, `/deliveries/${id}/cancel`, { method: 'POST' }),
    onSettled: () => client.invalidateQueries({ queryKey: ['deliveries', projectId] }),
  });
}

export const archiveUrl = (delivery: Pick<Delivery, 'id'>) => `/api/deliveries/${delivery.id}/archive`;
