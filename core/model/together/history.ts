import { z } from 'zod';

/** What a step does to the rows of a project. */
export const RowChangeSchema = z.object({
  table: z.enum(['projects', 'frames', 'project_originals', 'originals']),
  kind: z.enum(['added', 'changed', 'removed']),
  rowId: z.uuid(),
  /** What it was before, by the names of settings: of a change only what differs, and nothing of what was added. */
  before: z.record(z.string(), z.unknown()).nullable(),
});
export type RowChange = z.infer<typeof RowChangeSchema>;

/** What somebody did to a project at once. */
export const StepSchema = z.object({
  /** Steps that came later have higher ones. */
  id: z.int(),
  at: z.iso.datetime(),
  /** By name; null where there are no accounts, or the one who did it has none any more. */
  who: z.string().nullable(),
  /** How many of what was done to, and what of it: such as 3 frames changed, in their window. */
  did: z.array(
    z.object({
      table: RowChangeSchema.shape.table,
      kind: RowChangeSchema.shape.kind,
      count: z.int(),
      /** The names of what was changed. */
      settings: z.array(z.string()),
    }),
  ),
});
export type Step = z.infer<typeof StepSchema>;
