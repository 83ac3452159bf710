import { z } from 'zod';
import { ColourSchema } from './backing.ts';

export const ringWidths = { least: 1, most: 400 } as const;

/** A band of one colour along the edge of a round or rounded frame. */
export const RingSchema = z.object({
  /** In pixels of the place. */
  width: z
    .int('The width of a ring is a whole number of pixels.')
    .min(ringWidths.least, `A ring is at least ${ringWidths.least} px wide.`)
    .max(ringWidths.most, `A ring is at most ${ringWidths.most} px wide.`),
  colour: ColourSchema,
  /** Outside of the picture's own edge, so that the picture is made smaller for it, or inside, over the picture. */
  side: z.enum(['outside', 'inside']),
});
export type Ring = z.infer<typeof RingSchema>;
