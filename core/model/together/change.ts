import { z } from 'zod';

/**
 * Something that was changed, by whomever. `rows` names what has changed, with the versions that it has now: null for what is gone, and
 * for what is changed without a new one, such as a name. It is null itself where it is too much to be named.
 */
export const ChangeSchema = z.object({
  kind: z.enum(['frames', 'projects', 'originals', 'finishes', 'pictures', 'reviews', 'library']),
  /** Of frames, of the pictures in a project, and of its deliveries. */
  projectId: z.uuid().nullable(),
  rows: z.array(z.tuple([z.uuid(), z.int().nullable()])).nullable(),
  /** Of many frames: the sum of the versions of all in the project then. */
  total: z.int().nullish(),
});
export type Change = z.infer<typeof ChangeSchema>;

/** Where somebody is at work. */
export const PresenceSchema = z.object({
  /** A page of theirs: somebody may have several. */
  pageId: z.uuid(),
  projectId: z.uuid(),
  /** Null where no frame is chosen. */
  frameId: z.uuid().nullable(),
});
export type Presence = z.infer<typeof PresenceSchema>;

/** The same with who it is. */
export const PresentSchema = PresenceSchema.extend({ name: z.string() });
export type Present = z.infer<typeof PresentSchema>;

/** What a page hears of others: a change, where somebody is, or that something may have been missed. */
export const HeardSchema = z.discriminatedUnion('is', [
  z.object({ is: z.literal('change'), change: ChangeSchema }),
  z.object({ is: z.literal('present'), present: PresentSchema }),
  z.object({ is: z.literal('missed') }),
]);
export type Heard = z.infer<typeof HeardSchema>;
