import { z } from 'zod';

/** How well the letters of an item can be told from what lies round them, where their frame is shown at one width. */
export const LegibilitySchema = z.object({
  itemId: z.uuid(),
  /** In CSS pixels. */
  shownWidth: z.int().positive(),
  /** Contrast ratio of the letters to the worst tenth of what lies right round them, 1..21. */
  contrast: z.number().min(1).max(21.01),
  /** How uneven that is: the standard deviation of its lightness, as a share of how far the letters' lightness is from its mean. */
  busy: z.number().min(0),
});
export type Legibility = z.infer<typeof LegibilitySchema>;
