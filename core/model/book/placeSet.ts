import { z } from 'zod';
import { LetteringSchema } from '../lettering.ts';
import { AimSchema } from '../weighing.ts';

/** How the files of a project are named: see `core/naming`. */
export const PatternSchema = z
  .string()
  .trim()
  .min(1, 'A name pattern needs at least one word, such as {name}.')
  .max(200);

/** Places by their ids, in the order in which they were chosen. */
export const PlaceIdsSchema = z.array(z.string().min(3).max(180)).max(500, 'A set can have at most 500 places.');

/** A named choice of places that is used again, with what goes with it; null where a set says nothing of that. */
export const PlaceSetSettingsSchema = z.object({
  name: z.string().trim().min(1, 'A set needs a name.').max(60, 'The name of a set can have at most 60 characters.'),
  placeIds: PlaceIdsSchema.min(1, 'A set has at least one place.'),
  pattern: PatternSchema.nullable().default(null),
  finishId: z.string().max(100).nullable().default(null),
  lettering: LetteringSchema.nullable().default(null),
  /** What the bytes of new frames are spent on. */
  aim: AimSchema.nullable().default(null),
});
export type PlaceSetSettings = z.infer<typeof PlaceSetSettingsSchema>;

export const PlaceSetSchema = PlaceSetSettingsSchema.extend({ id: z.uuid(), version: z.int().positive() });
export type PlaceSet = z.infer<typeof PlaceSetSchema>;

/** A set in a file. */
export const PlaceSetFileSchema = PlaceSetSettingsSchema.extend({
  /** The version of this format. */
  placeSet: z.literal(1, 'This program reads sets of places of version 1 of their format.'),
});
