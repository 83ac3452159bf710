import { z } from 'zod';

/** What of a place is a number of its network: each can be from somewhere else. */
export const NumberSchema = z.enum([
  'dimensions',
  'formats',
  'limit',
  'shape',
  'covered',
  'shownPart',
  'shownWidths',
  'group',
  'wishes',
]);
export type PlaceNumber = z.infer<typeof NumberSchema>;

/** How sure a number is: a network says it itself, a dry run has measured it, or somebody has heard it. */
export const SurenessOfNumberSchema = z.enum(['said by the network', 'measured in a dry run', 'heard']);
export type SurenessOfNumber = z.infer<typeof SurenessOfNumberSchema>;

const sourceWords = 'A source is a note or a link of at most 300 characters.';

/** Where a number is from. */
export const ProvenanceSchema = z.object({
  /** On which date it was last compared with what the network says or does. */
  checkedOn: z.iso.date('A date is written as year, month and day: 2026-11-28.'),
  /** Where it was read: a note or a link. */
  source: z.string().trim().max(300, sourceWords).default(''),
  sureness: SurenessOfNumberSchema.default('said by the network'),
});
export type Provenance = z.infer<typeof ProvenanceSchema>;
