import { z } from 'zod';
import { ImageFormatSchema } from '../format.ts';
import { LimitSchema } from '../weight.ts';

/** What a side of a place may measure, in pixels. */
export const placeSides = { least: 8, most: 20_000 } as const;
export const sideWords = 'A side of a place is a whole number of pixels from 8 to 20,000.';
export const SideSchema = z.int(sideWords).min(placeSides.least, sideWords).max(placeSides.most, sideWords);

export const DimensionsSchema = z.object({ width: z.int().positive(), height: z.int().positive() });
export type Dimensions = z.infer<typeof DimensionsSchema>;

/** `1080 × 1350 px`. */
export const sidesWords = ({ width, height }: Dimensions): string => `${width} × ${height} px`;

const ratioBounds = 'A ratio is the width divided by the height, from 0.05 to 20.';
const RatioSchema = z.number(ratioBounds).min(0.05, ratioBounds).max(20, ratioBounds);

/** A ratio as people say it where it is one of small numbers, `4:5`, or in figures, `1.91:1`. */
export function ratioWords(ratio: number): string {
  for (let down = 1; down <= mostInRatio; down += 1) {
    const across = ratio * down;
    if (Math.abs(across - Math.round(across)) < 0.0005 * down && Math.round(across) <= mostInRatio) {
      return `${Math.round(across)}:${down}`;
    }
  }
  return `${Number(ratio.toFixed(3))}:1`;
}
const mostInRatio = 21;

/** What a place takes beside the dimensions that it wishes for: any of a list, or any ratio of a range. */
export const OtherDimensionsSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('list'),
    dimensions: z
      .array(z.object({ width: SideSchema, height: SideSchema }))
      .min(1, 'A list has at least one pair of sides.')
      .max(20, 'A list can have at most 20 pairs of sides.'),
  }),
  z
    .object({
      kind: z.literal('ratios'),
      /** Width divided by height. */
      least: RatioSchema,
      most: RatioSchema,
      leastSide: SideSchema,
      mostSide: SideSchema,
    })
    .refine(({ least, most }) => least < most, 'The least ratio has to be below the greatest.')
    .refine(({ leastSide, mostSide }) => leastSide <= mostSide, 'The least side has to be at or below the greatest.'),
]);
export type OtherDimensions = z.infer<typeof OtherDimensionsSchema>;

/** What a network recommends, and does not enforce. */
export const WishesSchema = z
  .object({
    /** Of one file. */
    weight: LimitSchema.optional(),
    formats: z.array(ImageFormatSchema).min(1, 'A wish for formats names at least one.').optional(),
  })
  .refine(({ weight, formats }) => weight || formats, 'A wish names a weight or formats.');
export type Wishes = z.infer<typeof WishesSchema>;
