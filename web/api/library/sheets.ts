import {
  AddedPlaceSchema,
  type KeptIn,
  type OwnPlace,
  type SheetContent,
  SheetEffectsSchema,
  type SheetVersion,
  SheetVersionSchema,
  type SpecSheet,
  SpecSheetSchema,
  type VersionWords,
} from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, type Saved, saveOver, tell } from '../client.ts';

/** All versions of a sheet, the newest first. */
export const useSheetVersions = (id: string | undefined) =>
  useQuery({
    queryKey: ['sheet-versions', id],
    queryFn: () => ask(z.array(SheetVersionSchema), `/sheets/${id}/versions`),
    enabled: id !== undefined,
  });

/** What a change of a sheet would do to frames; null content asks for nothing. */
export const useSheetEffects = (id: string | undefined, content: SheetContent | null) =>
  useQuery({
    queryKey: ['sheet-effects', id, content],
    queryFn: () => ask(SheetEffectsSchema, `/sheets/${id}/effects`, { method: 'POST', body: { content } }),
    enabled: id !== undefined && content !== null,
    staleTime: 0,
    gcTime: 60_000,
  });

/** Makes and changes sheets; whatever shows places is asked for again. */
export function useSheets() {
  const client = useQueryClient();
  const onSuccess = () =>
    Promise.all(
      ['spec-book', 'sheet-versions', 'projects', 'project', 'measured'].map((key) =>
        client.invalidateQueries({ queryKey: [key] }),
      ),
    );
  return {
    addPlace: useMutation({
      mutationFn: (body: { place: OwnPlace; keptIn: KeptIn }) =>
        ask(AddedPlaceSchema, '/sheets/places', { method: 'POST', body }),
      onSuccess,
    }),
    make: useMutation({
      mutationFn: (body: { content: SheetContent; words: VersionWords }) =>
        ask(SpecSheetSchema, '/sheets', { method: 'POST', body }),
      onSuccess,
    }),
    save: useMutation({
      mutationFn: ({
        id,
        version,
        ...change
      }: {
        id: string;
        version: number;
        content: SheetContent;
        words: VersionWords;
      }): Promise<Saved<SpecSheet, SheetVersion>> =>
        saveOver(SpecSheetSchema, SheetVersionSchema, `/sheets/${id}`, version, change),
      onSuccess,
    }),
    putAway: useMutation({
      mutationFn: (body: { slug: string; isAway: boolean }) => tell('/sheets/away', { method: 'POST', body }),
      onSuccess,
    }),
    move: useMutation({
      mutationFn: (body: { slug: string; before: string | null }) => tell('/sheets/order', { method: 'POST', body }),
      onSuccess,
    }),
  };
}
