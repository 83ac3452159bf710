import { z } from 'zod';
import { ImageFormatSchema } from './format.ts';
import { LimitSchema } from './weight.ts';

/** What a side of a place may measure, in pixels. */
export const placeSides = { least: 8, most: 20_000 } as const;
const sideWords = 'A side of a place is a whole number of pixels from 8 to 20,000.';
const px = z.int(sideWords).min(placeSides.least, sideWords).max(placeSides.most, sideWords);
const SlugSchema = z.string().regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'lower-case letters, digits and single hyphens');

export const DimensionsSchema = z.object({ width: z.int().positive(), height: z.int().positive() });
export type Dimensions = z.infer<typeof DimensionsSchema>;

export const PurposeSchema = z.enum([
  'post',
  'story',
  'cover',
  'thumbnail',
  'profile',
  'link',
  'pin',
  'banner',
  'inline',
]);
export type Purpose = z.infer<typeof PurposeSchema>;

/** An area in pixels of the place; it may reach past the frame's edge. `circle` is inscribed in the box. */
export const AreaSchema = z.object({
  left: z.number(),
  top: z.number(),
  width: z.number().positive(),
  height: z.number().positive(),
  shape: z.enum(['rectangle', 'circle']).default('rectangle'),
  /** What covers it, or where only this part is shown: "controls", "running time", "phones". */
  reason: z.string().min(1),
});
export type Area = z.infer<typeof AreaSchema>;

/** How several pieces of one picture belong together. Gaps are shares of a tile's width. */
export const GroupSchema = z.discriminatedUnion('kind', [
  z
    .object({ kind: z.literal('panels'), min: z.int().min(2), max: z.int().max(100) })
    .refine(({ min, max }) => min <= max, 'There have to be at least as many panels at most as at least.'),
  z.object({
    kind: z.literal('block'),
    columns: z.int().min(1).max(20),
    rows: z.int().min(1).max(20),
    gap: z.number().min(0).max(0.2),
    /** Reading index (row by row, from 0) of the tile uploaded first, second, … */
    postingOrder: z.array(z.int().min(0)),
  }),
  z.object({
    kind: z.literal('quilt'),
    columns: z.int().positive(),
    minRows: z.int().positive(),
    maxRows: z.int().positive(),
    gap: z.number().min(0).max(0.2),
    posting: z.enum(['first tile first', 'last tile first']),
  }),
]);
export type Group = z.infer<typeof GroupSchema>;

/** One named slot of a network with its spec. */
export const PlaceSchema = z.object({
  slug: SlugSchema,
  name: z.string().trim().min(1, 'A place needs a name.').max(60, 'A name can have at most 60 characters.'),
  purpose: PurposeSchema,
  width: px,
  /** Exact, or a range where the network takes any height between two. */
  height: z.union(
    [
      px,
      z
        .object({ min: px, max: px })
        .refine(({ min, max }) => min < max, 'The least height has to be below the greatest.'),
    ],
    { error: sideWords },
  ),
  formats: z.array(ImageFormatSchema).min(1, 'A place takes at least one format.'),
  limit: LimitSchema,
  shape: z.enum(['rectangle', 'rounded', 'circle']).default('rectangle'),
  covered: z.array(AreaSchema).default([]),
  /** The part that is shown everywhere, where that is not the whole. */
  shownPart: AreaSchema.optional(),
  /** Widths at which the audience sees it, in CSS pixels, largest first. */
  shownWidths: z.array(z.int().positive()).default([]),
  /** A wish of the network that no rule enforces. */
  note: z.string().optional(),
  group: GroupSchema.optional(),
  /** Where a person made this place: by what it is changed. */
  own: z.object({ id: z.uuid(), version: z.int().positive() }).optional(),
});
export type Place = z.infer<typeof PlaceSchema>;

/** What a network does to a picture after it has taken it. */
export const AfterUploadSchema = z.object({
  longEdge: px,
  quality: z.int().min(1).max(100),
  chroma: z.enum(['4:2:0', '4:4:4']),
});

/** One network's places. */
export const SpecSheetSchema = z.object({
  slug: SlugSchema,
  name: z.string().min(1).max(40),
  kind: z.string().min(1),
  /** ISO date on which the numbers were last compared with the network's own. */
  checkedOn: z.iso.date(),
  /** Not known of a sheet of one's own. */
  afterUpload: AfterUploadSchema.optional(),
  /** The one project that a sheet of one's own is meant for. */
  projectId: z.uuid().optional(),
  places: z.array(PlaceSchema),
});
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
