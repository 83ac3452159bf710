import { BookImportSchema } from '@inkwell/core/model';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask } from '../client.ts';

/** Looks at a file of sheets, and takes sheets out of it. */
export function useImport() {
  const client = useQueryClient();
  return {
    look: useMutation({
      mutationFn: (text: string) => ask(BookImportSchema, '/spec-book/import', { method: 'POST', body: { text } }),
    }),
    take: useMutation({
      mutationFn: (body: { text: string; take: { slug: string; version: number | null }[]; savedBy: string }) =>
        ask(z.object({ taken: z.int() }), '/spec-book/import/take', { method: 'POST', body }),
      onSuccess: () =>
        Promise.all(
          ['spec-book', 'sheet-versions', 'projects', 'project', 'measured'].map((key) =>
            client.invalidateQueries({ queryKey: [key] }),
          ),
        ),
    }),
  };
}
