import { z } from 'zod';
import { SheetContentSchema } from './sheet.ts';

const savedBy = z.string().trim().max(60, 'A name can have at most 60 characters.');

/** Who saves a version of a sheet, and why: both may be left empty. */
export const VersionWordsSchema = z.object({
  savedBy: savedBy.default(''),
  note: z.string().trim().max(300, 'What has changed can be said in at most 300 characters.').default(''),
});
export type VersionWords = z.infer<typeof VersionWordsSchema>;

/** A sheet as it was saved once. */
export const SheetVersionSchema = VersionWordsSchema.extend({
  number: z.int().positive(),
  savedAt: z.iso.datetime(),
  content: SheetContentSchema,
});
export type SheetVersion = z.infer<typeof SheetVersionSchema>;

/** The versions of sheets that a project stays on, by their slugs; of others it follows the newest. */
export const PinsSchema = z.record(z.string().max(80), z.int32().positive());
export type Pins = z.infer<typeof PinsSchema>;
