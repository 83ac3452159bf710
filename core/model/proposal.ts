import { z } from 'zod';
import { LookSchema, type Mark, RegionSchema } from './mark.ts';

export const ProposalKindSchema = z.enum(['face', 'person', 'animal', 'thing', 'words', 'stands out']);
export type ProposalKind = z.infer<typeof ProposalKindSchema>;

const SurenessSchema = z.enum(['sure', 'likely']);
/** How sure the program is of a proposal. */
export type Sureness = z.infer<typeof SurenessSchema>;

/** A region, in original pixels, that the program has seen and nobody has confirmed yet. */
export const ProposalSchema = RegionSchema.extend({
  kind: ProposalKindSchema,
  /** What it is, in a word: "face", "dog", "words". */
  name: z.string(),
  sureness: SurenessSchema,
  /** Where a face looks, as seen. */
  look: LookSchema.nullable(),
});
export type Proposal = z.infer<typeof ProposalSchema>;

/** A mark that frames are composed from: one of a person's own, or a proposal that nobody has confirmed. */
export type MarkToCompose = Mark & { proposed?: Sureness };

/** A proposal that a person has decided on: it was kept as a mark, or dismissed, and is not proposed again. */
export const DecidedSchema = z.discriminatedUnion('kind', [
  RegionSchema.extend({ kind: ProposalKindSchema }),
  z.object({ kind: z.literal('tilt') }),
  z.object({ kind: z.literal('body') }),
]);
export type Decided = z.infer<typeof DecidedSchema>;

const decidedLimit = 400;
export const DecisionsSchema = z
  .array(DecidedSchema)
  .max(decidedLimit, `At most ${decidedLimit} proposals of a picture can be decided on.`);
