import { type Finish, FinishesSchema, type FinishFile, FinishSchema, type FinishSettings } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ask, type Saved, save, tell } from '../client.ts';

/** The finishes that people made. */
export function useFinishes() {
  return useQuery({ queryKey: ['finishes'], queryFn: () => ask(FinishesSchema, '/finishes') });
}

/** Saves a change made on top of `version`. @throws ApiError for everything but a conflict */
export const saveFinish = (id: string, version: number, change: Partial<FinishSettings>): Promise<Saved<Finish>> =>
  save(FinishSchema, `/finishes/${id}`, version, change);

export function useFinishActions() {
  const client = useQueryClient();
  const onSuccess = () => client.invalidateQueries({ queryKey: ['finishes'] });
  return {
    add: useMutation({
      mutationFn: (settings: FinishSettings) => ask(FinishSchema, '/finishes', { method: 'POST', body: settings }),
      onSuccess,
    }),
    read: useMutation({
      mutationFn: (file: FinishFile) => ask(FinishSchema, '/finishes/import', { method: 'POST', body: file }),
      onSuccess,
    }),
    remove: useMutation({ mutationFn: (id: string) => tell(`/finishes/${id}`, { method: 'DELETE' }), onSuccess }),
    restore: useMutation({
      mutationFn: (id: string) => tell(`/finishes/${id}/restore`, { method: 'POST' }),
      onSuccess,
    }),
  };
}

/** A finish as a file to keep or to pass on. */
export const finishFileUrl = (id: string) => `${api}/finishes/${id}/file`;
