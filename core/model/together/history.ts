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

/** So many steps are told at a time. */
export const stepsTogether = 60;

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

/** A frame as it was at a moment. */
const FrameThenSchema = z.object({ planHash: z.string(), width: z.int(), height: z.int() });

/** A frame that a step has to do with: null where it was not there, or cannot be drawn any more. */
export const RecalledFrameSchema = z.object({
  id: z.uuid(),
  picture: z.string(),
  network: z.string(),
  place: z.string(),
  before: FrameThenSchema.nullable(),
  after: FrameThenSchema.nullable(),
});
export type RecalledFrame = z.infer<typeof RecalledFrameSchema>;

/** A step that is looked at. */
export const OpenStepSchema = z.object({
  step: StepSchema,
  /** The frames that look otherwise since, or all that there were then; of very many only the first. */
  frames: z.array(RecalledFrameSchema),
  /** How many there are. */
  count: z.int(),
});
export type OpenStep = z.infer<typeof OpenStepSchema>;

/** What came back. */
export const BroughtBackSchema = z.object({ frames: z.int(), pictures: z.int() });
export type BroughtBack = z.infer<typeof BroughtBackSchema>;
