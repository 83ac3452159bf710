import { type Finish, type FinishFile, FinishSchema, type FinishSettings } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, type Saved, save, tell } from '../client.ts';

const FinishesSchema = z.object({
  finishes: z.array(FinishSchema),
  /** How many frames of all projects a finish holds for, by its id. */
  uses: z.record(z.string(), z.number()),
});
export type Finishes = z.infer<typeof FinishesSchema>;

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
export const finishFileUrl = (id: string) => `/api/finishes/${id}/file`;
