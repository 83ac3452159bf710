import { useMutation, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask } from '../client.ts';

const LineSchema = z.object({
  at: z.string(),
  place: z.string(),
  kind: z.enum(['new', 'changed', 'gone', 'not understood', 'same']),
  words: z.array(z.string()),
});
export type ImportedLine = z.infer<typeof LineSchema>;

/** What a file would do to the book, without what its sheets say then. */
const PlanSchema = z.object({
  sheets: z.array(
    z.object({
      slug: z.string(),
      name: z.string(),
      kind: z.enum(['new', 'changed', 'same']),
      version: z.int().nullable(),
      note: z.string(),
      lines: z.array(LineSchema),
    }),
  ),
  notUnderstood: z.array(LineSchema),
});
export type ImportedPlan = z.infer<typeof PlanSchema>;

/** Looks at a file of sheets, and takes sheets out of it. */
export function useImport() {
  const client = useQueryClient();
  return {
    look: useMutation({
      mutationFn: (text: string) => ask(PlanSchema, '/spec-book/import', { method: 'POST', body: { text } }),
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
