import { z } from 'zod';
import { AfterUploadSchema } from '../afterUpload.ts';
import { boundedPlace, type Place, PlaceFieldsSchema, PlaceSchema, SlugSchema } from './place.ts';
import { ProvenanceSchema } from './provenance.ts';
import { SideSchema } from './rules.ts';

/** What a sheet is called. */
export const SheetNameSchema = z
  .string()
  .trim()
  .min(1, 'A sheet needs a name.')
  .max(40, 'The name of a sheet can have at most 40 characters.');
const kind = z
  .string()
  .trim()
  .min(1, 'Say in a few words what kind of network it is.')
  .max(60, 'What kind of network it is can have at most 60 characters.');

const recheckWords = 'Numbers are checked again after 1 to 3,650 days.';

/** After so many days the numbers of a sheet count as old where it says nothing else. */
export const usualRecheckDays = 180;

/** The most places that one sheet has. */
export const mostPlaces = 500;

/** What a sheet says of its network, beside its places. */
const sheetFields = {
  name: SheetNameSchema,
  kind,
  /** Where all numbers are from that say nothing else of themselves. */
  ...ProvenanceSchema.shape,
  /** After so many days without a check its frames carry a caution. */
  recheckDays: z.int(recheckWords).min(1, recheckWords).max(3650, recheckWords).default(usualRecheckDays),
  /** Not known of most sheets of one's own. */
  afterUpload: AfterUploadSchema.optional(),
  /** Between which lengths a side may lie where files of other dimensions than a place's, in its ratio, are taken too. */
  otherSides: z
    .object({ least: SideSchema, most: SideSchema })
    .refine(({ least, most }) => least <= most, 'The least length has to be at or below the greatest.')
    .optional(),
  places: z.array(PlaceSchema).max(mostPlaces, `A sheet can have at most ${mostPlaces} places.`),
};

/** Refuses two places under one id. */
const distinct = ({ places }: { places: readonly Pick<Place, 'slug'>[] }, context: z.RefinementCtx): void => {
  const seen = new Set<string>();
  for (const [index, { slug }] of places.entries()) {
    if (seen.has(slug)) {
      const message = `Two places of this sheet have the id ${slug}. Give one of them another.`;
      context.addIssue({ code: 'custom', path: ['places', index, 'slug'], message });
    }
    seen.add(slug);
  }
};

/** A place as people write it down: not which row it is kept in, nor what was measured. */
const WrittenPlaceSchema = PlaceFieldsSchema.omit({ own: true, measured: true }).superRefine(boundedPlace);

/** What people write down of a network: what a version of a sheet keeps. */
const writtenFields = {
  ...sheetFields,
  places: z.array(WrittenPlaceSchema).max(mostPlaces, `A sheet can have at most ${mostPlaces} places.`),
};
export const SheetContentSchema = z.object(writtenFields).superRefine(distinct);
export type SheetContent = z.infer<typeof SheetContentSchema>;

/** A sheet of one's own that has no places yet. @param checkedOn ISO date */
export const emptySheet = (name: string, checkedOn: string, kind = 'your own sheet'): SheetContent =>
  SheetContentSchema.parse({ name, kind, checkedOn, places: [] });

/** What people write down of a sheet of the book: not in which row it is kept, nor what was measured. */
export const contentOf = (sheet: SpecSheet): SheetContent => SheetContentSchema.parse(sheet);

/** A sheet in a file, under the id that it has in every book. */
export const SheetFileSchema = z.object({ slug: SlugSchema.max(80), ...writtenFields }).superRefine(distinct);
export type SheetFile = z.infer<typeof SheetFileSchema>;

/** Sheets in a file: one, or a whole book. See docs/formats/spec-sheet.schema.json. */
export const BookFileSchema = z.object({
  /** The version of this format. */
  specBook: z.literal(1),
  sheets: z.array(SheetFileSchema).max(2000),
});
export type BookFile = z.infer<typeof BookFileSchema>;

/** One network's places. */
export const SpecSheetSchema = z
  .object({
    /** Never changes: frames refer to places by it. */
    slug: SlugSchema.max(80),
    ...sheetFields,
    /** Of a sheet of one's own: by what it is changed, and which version this is. Sheets that ship have none. */
    own: z.object({ id: z.uuid(), version: z.int().positive() }).optional(),
    /** The newest version, where a project stays on an older one. */
    newest: z.int().positive().optional(),
    /** Put away: its places are not offered; frames that are made for them stay. */
    isAway: z.boolean().optional(),
    /** The one project that a sheet of one's own is meant for. */
    projectId: z.uuid().optional(),
  })
  .superRefine(distinct);
export type SpecSheet = z.infer<typeof SpecSheetSchema>;

/** A place together with the network it belongs to, under the id by which frames refer to it. */
export interface PlaceOfNetwork {
  /** `network/place`, e.g. `sunpane/story`. */
  id: string;
  network: { slug: string; name: string };
  place: Place;
}

/** All places of all sheets by id. */
export function placesById(sheets: readonly SpecSheet[]): Map<string, PlaceOfNetwork> {
  return new Map(
    sheets.flatMap((sheet) =>
      sheet.places.map((place) => {
        const id = `${sheet.slug}/${place.slug}`;
        return [id, { id, network: { slug: sheet.slug, name: sheet.name }, place }] as const;
      }),
    ),
  );
}

/** The sheet of a place, by the id of that. */
export const sheetSlugOf = (placeId: string): string => placeId.split('/')[0] ?? '';
