import { z } from 'zod';
import { LookSchema, RegionSchema } from './mark.ts';
import { TrimSchema } from './original.ts';

/** Grows when the program sees something else in the same picture: what an older one has seen is looked at again. */
export const analyserVersion = 1;

export const ProposalKindSchema = z.enum(['face', 'person', 'animal', 'thing', 'words', 'stands out']);
export type ProposalKind = z.infer<typeof ProposalKindSchema>;

/** A region, in original pixels, that the program has seen and nobody has confirmed yet. */
export const ProposalSchema = RegionSchema.extend({
  kind: ProposalKindSchema,
  /** What it is, in a word: "face", "dog", "words". */
  name: z.string(),
  sureness: z.enum(['sure', 'likely']),
  /** Where a face looks, as seen. */
  look: LookSchema.nullable(),
});
export type Proposal = z.infer<typeof ProposalSchema>;

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
});
export type Seen = z.infer<typeof SeenSchema>;
