import { z } from 'zod';
import { TrimSchema } from './original.ts';
import { ProposalSchema } from './proposal.ts';

/** Grows when the program sees something else in the same picture: what an older one has seen is looked at again. */
export const analyserVersion = 3;

/** How light and how busy a picture is, in cells of equal width and height, row by row: two hexadecimal digits each. */
export const GroundSchema = z
  .object({
    columns: z.int().positive(),
    rows: z.int().positive(),
    /** Mean luminance as it is encoded, of 255. */
    light: z.string().regex(/^[0-9a-f]*$/),
    /** Standard deviation of the luminance, in the same levels. */
    spread: z.string().regex(/^[0-9a-f]*$/),
  })
  .refine(
    ({ columns, rows, light, spread }) => [light, spread].every(({ length }) => length === 2 * columns * rows),
    'A ground has a light and a spread for every cell.',
  );
export type Ground = z.infer<typeof GroundSchema>;

/** What kind of picture it is. */
export const PictureKindSchema = z.enum(['photo', 'scan', 'flat artwork', 'mixed']);
export type PictureKind = z.infer<typeof PictureKindSchema>;

/** All that the program has seen in a picture. */
export const AnalysisSchema = z.object({
  version: z.int().positive(),
  proposals: z.array(ProposalSchema),
  /** How far the picture leans clockwise, in degrees; null where nothing says so for sure. */
  tilt: z.number().nullable(),
  /** The body of artwork that lies on an empty margin; null where there is none. */
  body: TrimSchema.nullable(),
  picture: PictureKindSchema,
  /** What words would stand on; null where an older version has looked, which did not measure it. */
  ground: GroundSchema.nullable().default(null),
});
export type Analysis = z.infer<typeof AnalysisSchema>;

/** How far the program is with looking at an original. */
export const SeenSchema = z.object({
  originalId: z.uuid(),
  /** What was seen, perhaps by an older version; null while it has not been looked at. */
  analysis: AnalysisSchema.nullable(),
  /** Why it could not be looked at, in words; null where it was, or still will be. */
  failure: z.string().nullable(),
  /** Whether it can be tried again. */
  mayTryAgain: z.boolean(),
});
export type Seen = z.infer<typeof SeenSchema>;
