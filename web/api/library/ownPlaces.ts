import type { KeptIn, OwnPlace } from '@inkwell/core/model';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, tell } from '../client.ts';

const DoneSchema = z.object({ id: z.uuid(), placeId: z.string() });

/** Adds, changes, puts aside and takes back places of one's own; whatever shows places is asked for again. */
export function useOwnPlaces() {
  const client = useQueryClient();
  const onSuccess = () =>
    Promise.all(
      ['spec-book', 'projects', 'project', 'measured'].map((key) => client.invalidateQueries({ queryKey: [key] })),
    );
  return {
    add: useMutation({
      mutationFn: (body: { place: OwnPlace; keptIn: KeptIn }) =>
        ask(DoneSchema, '/own-places', { method: 'POST', body }),
      onSuccess,
    }),
    save: useMutation({
      mutationFn: ({ id, ...body }: { id: string; version: number; place: OwnPlace }) =>
        ask(DoneSchema, `/own-places/${id}`, { method: 'PATCH', body }),
      onSuccess,
    }),
    remove: useMutation({ mutationFn: (id: string) => tell(`/own-places/${id}`, { method: 'DELETE' }), onSuccess }),
    restore: useMutation({
      mutationFn: (id: string) => tell(`/own-places/${id}/restore`, { method: 'POST' }),
      onSuccess,
    }),
  };
}
