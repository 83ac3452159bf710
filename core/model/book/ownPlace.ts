import { z } from 'zod';
import { boundedPlace, PlaceFieldsSchema } from './place.ts';
import { SheetNameSchema } from './sheet.ts';

/** What a person says of a place of their own; its slug is made for it. */
export const OwnPlaceSchema = PlaceFieldsSchema.omit({ slug: true, own: true, measured: true }).superRefine(
  boundedPlace,
);
export type OwnPlace = z.infer<typeof OwnPlaceSchema>;

/** Where it is kept: in a sheet of one's own under a name, or for one project only. */
export const KeptInSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('sheet'),
    name: SheetNameSchema,
  }),
  z.object({ kind: z.literal('project'), projectId: z.uuid() }),
]);
export type KeptIn = z.infer<typeof KeptInSchema>;
