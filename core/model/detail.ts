import { z } from 'zod';

/** What is left of a mark's detail where its frame is shown small. */
export const DetailKeptSchema = z.object({
  markId: z.uuid(),
  /** In CSS pixels. */
  shownWidth: z.int().positive(),
  /** The share of the detail's energy that survives, 0..1. */
  kept: z.number().min(0).max(1),
});
export type DetailKept = z.infer<typeof DetailKeptSchema>;
