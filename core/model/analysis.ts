import { z } from 'zod';
import { TrimSchema } from './original.ts';
import { ProposalSchema } from './proposal.ts';

/** Grows when the program sees something else in the same picture: what an older one has seen is looked at again. */
export const analyserVersion = 2;

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
