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
    mutationFn: (pattern: string) =>
      ask(DeliverySchema, '/deliveries', { method: 'POST', body: { projectId, pattern } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['deliveries', projectId] }),
  });
}

export const archiveUrl = (delivery: Pick<Delivery, 'id'>) => `/api/deliveries/${delivery.id}/archive`;
