import { type Delivery, DeliverySchema } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { api, ask } from '../client.ts';

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
    mutationFn: (body: { pattern: string; seen: { frameId: string; plan: string }[]; only?: string[] }) =>
      ask(DeliverySchema, '/deliveries', { method: 'POST', body: { projectId, ...body } }),
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

const togetherMs = 3000;

/** One delivery. */
export function useDelivery(id: string) {
  return useQuery({
    queryKey: ['delivery', id],
    queryFn: () => ask(DeliverySchema, `/deliveries/${id}`),
    refetchInterval: ({ state }) => (state.data && isOpen(state.data) ? workingPollMs : false),
  });
}

/** The posts of a delivery that are posted: others tick them too. */
export function usePosted(id: string) {
  const client = useQueryClient();
  const key = ['posted', id];
  const query = useQuery({
    queryKey: key,
    queryFn: () => ask(z.array(z.string()), `/deliveries/${id}/posted`),
    refetchInterval: togetherMs,
  });
  const tick = useMutation({
    mutationFn: (body: { post: string; posted: boolean }) =>
      ask(z.array(z.string()), `/deliveries/${id}/posted`, { method: 'POST', body }),
    // A tick stands at once; what the server says of all of them follows.
    onMutate: async ({ post, posted }) => {
      await client.cancelQueries({ queryKey: key });
      client.setQueryData<string[]>(key, (before = []) => [
        ...before.filter((one) => one !== post),
        ...(posted ? [post] : []),
      ]);
    },
    onSuccess: (posted) => client.setQueryData(key, posted),
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
  return { query, tick };
}

/** @param network only what is for this one */
export const archiveUrl = (delivery: Pick<Delivery, 'id'>, network?: string) =>
  `${api}/deliveries/${delivery.id}/archive${network ? `?network=${encodeURIComponent(network)}` : ''}`;

/** A delivered file. @param width in small, to look at; left out for the file itself */
export const fileUrl = (delivery: Pick<Delivery, 'id'>, name: string, width?: number) =>
  `${api}/deliveries/${delivery.id}/file?name=${encodeURIComponent(name)}${width ? `&width=${width}` : ''}`;
