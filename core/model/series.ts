import { z } from 'zod';
import { PictureWordsSchema } from './lettering.ts';
import { NameSchema } from './name.ts';

/** So many rows a series can have: as many as a project has pictures. */
export const mostRows = 500;

/** One row of a series: a picture, and what is said on it. */
export const SeriesRowSchema = z.object({
  /** The picture; where rows name the same one, each after the first gets a copy of its own. */
  originalId: z.uuid(),
  /** What the picture is called from then on; null where it keeps its name. */
  name: NameSchema.nullable(),
  /** What items say on it, by their ids; the others say what they say on all. */
  words: z.record(z.uuid(), PictureWordsSchema),
  /** Places that it gets beside those that it has; null for those of the series. */
  placeIds: z.array(z.string().max(200)).max(500).nullable(),
});
export type SeriesRow = z.infer<typeof SeriesRowSchema>;

export const SeriesSchema = z.object({
  rows: z
    .array(SeriesRowSchema)
    .min(1, 'A series needs at least one row.')
    .max(mostRows, `A series can have at most ${mostRows} rows.`),
  /** Places for every row that names none. */
  placeIds: z.array(z.string().max(200)).max(500),
});
export type Series = z.infer<typeof SeriesSchema>;

/** What would be wrong with a row, in words; nothing has been made yet. */
export const RowFindingsSchema = z.object({ findings: z.array(z.string()) });
export type RowFindings = z.infer<typeof RowFindingsSchema>;
