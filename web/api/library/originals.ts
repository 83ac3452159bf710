import {
  ColourAtSchema,
  ColoursOfSchema,
  type Original,
  OriginalSchema,
  type OriginalSettings,
  TrimProposalSchema,
} from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { api, ask, type Saved, save, tell } from '../client.ts';

export function useOriginals() {
  return useQuery({ queryKey: ['originals'], queryFn: () => ask(z.array(OriginalSchema), '/originals') });
}

/** Saves marks or trim, changed on top of `version`. @throws ApiError for everything but a conflict */
export const saveOriginal = (
  id: string,
  version: number,
  change: Partial<OriginalSettings>,
): Promise<Saved<Original>> => save(OriginalSchema, `/originals/${id}/settings`, version, change);

/** What the server proposes to leave away of an original's empty margin: all of it, and what lies beside its body as well. */
export function useTrimProposal(id: string, options: { tolerance: number; shadow: 'kept' | 'left' }) {
  const query = `tolerance=${options.tolerance}&shadow=${options.shadow}`;
  return useQuery({
    queryKey: ['trim', id, query],
    queryFn: () => ask(TrimProposalSchema, `/originals/${id}/trim?${query}`),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** Up to five colours that stand out in an original. */
export function useColours(id: string) {
  return useQuery({
    queryKey: ['colours', id],
    queryFn: async () => (await ask(ColoursOfSchema, `/originals/${id}/colours`)).colours,
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** The colour of one pixel of an original; null where it is transparent. @throws ApiError */
export const colourOf = async (id: string, x: number, y: number): Promise<string | null> =>
  (await ask(ColourAtSchema, `/originals/${id}/colour?x=${x}&y=${y}`)).colour;

/** A picture of the whole original, at most `width` pixels wide. */
export const previewUrl = (original: Pick<Original, 'id'>, width: number) =>
  `${api}/originals/${original.id}/preview?width=${width}`;
/** A small picture of one page or frame of an original's file. */
export const pageUrl = (original: Pick<Original, 'id'>, page: number) =>
  `${api}/originals/${original.id}/pages/${page}/preview`;
export const fileUrl = (original: Pick<Original, 'id'>) => `${api}/originals/${original.id}/file`;

export const renameOriginal = (id: string, name: string): Promise<Original> =>
  ask(OriginalSchema, `/originals/${id}`, { method: 'PATCH', body: { name } });

/** Rename, duplicate, delete and take back; the lists that show originals are asked for again afterwards. */
export function useOriginalActions() {
  const client = useQueryClient();
  const onSuccess = () =>
    Promise.all(['originals', 'projects', 'project'].map((key) => client.invalidateQueries({ queryKey: [key] })));
  return {
    rename: useMutation({
      mutationFn: ({ id, name }: { id: string; name: string }) => renameOriginal(id, name),
      onSuccess,
    }),
    duplicate: useMutation({
      mutationFn: (id: string) => ask(OriginalSchema, `/originals/${id}/duplicate`, { method: 'POST' }),
      onSuccess,
    }),
    addPages: useMutation({
      mutationFn: ({ id, pages }: { id: string; pages: number[] }) =>
        ask(z.array(OriginalSchema), `/originals/${id}/pages`, { method: 'POST', body: { pages } }),
      onSuccess,
    }),
    remove: useMutation({ mutationFn: (id: string) => tell(`/originals/${id}`, { method: 'DELETE' }), onSuccess }),
    restore: useMutation({
      mutationFn: (id: string) => tell(`/originals/${id}/restore`, { method: 'POST' }),
      onSuccess,
    }),
  };
}
