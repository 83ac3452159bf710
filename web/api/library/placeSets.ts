import {
  AppliedSetSchema,
  type PlaceSet,
  type PlaceSetFileSchema,
  PlaceSetSchema,
  type PlaceSetSettings,
} from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, type Saved, save, tell } from '../client.ts';

const key = ['place-sets'];

/** All sets of places, and what can be done with them. */
export function usePlaceSets() {
  const client = useQueryClient();
  const query = useQuery({ queryKey: key, queryFn: () => ask(z.array(PlaceSetSchema), '/place-sets') });
  const onSuccess = () => client.invalidateQueries({ queryKey: key });
  return {
    query,
    sets: query.data ?? [],
    add: useMutation({
      mutationFn: (settings: PlaceSetSettings) =>
        ask(PlaceSetSchema, '/place-sets', { method: 'POST', body: settings }),
      onSuccess,
    }),
    addFile: useMutation({
      mutationFn: (file: z.infer<typeof PlaceSetFileSchema>) =>
        ask(PlaceSetSchema, '/place-sets/import', { method: 'POST', body: file }),
      onSuccess,
    }),
    change: useMutation({
      mutationFn: ({ id, version, ...settings }: PlaceSet): Promise<Saved<PlaceSet>> =>
        save(PlaceSetSchema, `/place-sets/${id}`, version, settings),
      onSuccess,
    }),
    remove: useMutation({ mutationFn: (id: string) => tell(`/place-sets/${id}`, { method: 'DELETE' }), onSuccess }),
    restore: useMutation({
      mutationFn: (id: string) => tell(`/place-sets/${id}/restore`, { method: 'POST' }),
      onSuccess,
    }),
    apply: useMutation({
      mutationFn: ({ id, ...body }: { id: string; projectId: string; version: number }) =>
        ask(AppliedSetSchema, `/place-sets/${id}/apply`, { method: 'POST', body }),
      onSuccess: ({ project }) => {
        client.setQueryData(['project', project.id], project);
        for (const queryKey of [['projects'], ['measured', project.id]]) void client.invalidateQueries({ queryKey });
      },
    }),
  };
}
