import {
  FinishSettingsSchema,
  FrameSettingsSchema,
  OriginalSettingsSchema,
  ProjectSettingsSchema,
} from '@inkwell/core/model';
import { z } from 'zod';

/** The settings that a step of undo brings back. */
const StepSchema = z.object({
  frames: z.record(z.string(), FrameSettingsSchema),
  originals: z.record(z.string(), OriginalSettingsSchema),
  projects: z.record(z.string(), ProjectSettingsSchema),
  finishes: z.record(z.string(), FinishSettingsSchema),
});

const left = <Schema extends z.ZodType>(settings: Schema) =>
  z.record(z.string(), z.object({ settings, version: z.int() }));

/** What of a bench outlives a reload: unsaved changes with the version they were made on, and the steps of undo. */
const KeptSchema = z.object({
  unsaved: z.object({
    frames: left(FrameSettingsSchema),
    originals: left(OriginalSettingsSchema),
    projects: left(ProjectSettingsSchema),
    finishes: left(FinishSettingsSchema),
  }),
  past: z.array(StepSchema),
  future: z.array(StepSchema),
});

/** Where a bench is kept between reloads; `localStorage` has this shape. */
export type Shelf = Pick<Storage, 'getItem' | 'setItem'>;

/** What a shelf has kept; nothing where that cannot be read. */
export function readKept(text: string | null): z.infer<typeof KeptSchema> {
  const nothing = { unsaved: { frames: {}, originals: {}, projects: {}, finishes: {} }, past: [], future: [] };
  if (text === null) return nothing;
  try {
    return KeptSchema.parse(JSON.parse(text));
  } catch {
    // Kept by another version of the program: its steps of undo mean nothing here, and what was saved is on the server.
    return nothing;
  }
}

/** Unsaved rows as they are kept. */
export const keptRows = <Settings>(rows: { row: { id: string; version: number }; settings: Settings }[]) =>
  Object.fromEntries(rows.map(({ row, settings }) => [row.id, { settings, version: row.version }]));
