import { z } from 'zod';
import { AfterUploadSchema } from './afterUpload.ts';
import { ImageFormatSchema } from './format.ts';
import { LimitSchema } from './weight.ts';

/** What of a sheet a network does otherwise, with what was measured: of one place, or of all that is uploaded there. */
export const SheetChangeSchema = z.discriminatedUnion('field', [
  z.object({ field: z.literal('limit'), limit: LimitSchema }),
  z.object({ field: z.literal('formats'), formats: z.array(ImageFormatSchema).min(1) }),
  z.object({ field: z.literal('height'), height: z.int().min(8).max(20_000) }),
  z.object({ field: z.literal('most panels'), most: z.int().min(2).max(100) }),
  z.object({ field: z.literal('gap'), gap: z.number().min(0).max(0.2) }),
  z.object({ field: z.literal('long edge'), longEdge: AfterUploadSchema.shape.longEdge }),
  z.object({
    field: z.literal('encoding'),
    format: AfterUploadSchema.shape.format,
    quality: AfterUploadSchema.shape.quality,
    chroma: AfterUploadSchema.shape.chroma,
  }),
]);
export type SheetChange = z.infer<typeof SheetChangeSchema>;

/** A difference between the spec book and what a network really does, as a dry run has measured it. */
export const SheetFindingSchema = z.object({
  id: z.uuid(),
  /** Slugs; the place is null where all of the network is meant. */
  network: z.string(),
  place: z.string().nullable(),
  change: SheetChangeSchema,
  /** What the spec book said, and what was measured. */
  said: z.string(),
  measured: z.string(),
  measuredOn: z.iso.date(),
  /** Where it was seen. */
  dryRunId: z.uuid().nullable(),
  state: z.enum(['open', 'taken over', 'dismissed']),
  /** What is in the spec book instead of its own number: what was taken over last; null where nothing is. */
  taken: SheetChangeSchema.nullable(),
  /** Grows with every change of its state. */
  version: z.int().positive(),
});
export type SheetFinding = z.infer<typeof SheetFindingSchema>;
