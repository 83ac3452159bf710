import { z } from 'zod';
import { AfterUploadSchema } from './afterUpload.ts';
import { ImageFormatSchema } from './format.ts';
import { LimitSchema } from './weight.ts';

/** What a side of a place may measure, in pixels. */
export const placeSides = { least: 8, most: 20_000 } as const;
const sideWords = 'A side of a place is a whole number of pixels from 8 to 20,000.';
const px = z.int(sideWords).min(placeSides.least, sideWords).max(placeSides.most, sideWords);
export const SlugSchema = z.string().regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'lower-case letters, digits and single hyphens');

export const DimensionsSchema = z.object({ width: z.int().positive(), height: z.int().positive() });
export type Dimensions = z.infer<typeof DimensionsSchema>;

export const PurposeSchema = z.enum([
  'post',
  'story',
  'cover',
  'thumbnail',
  'profile',
  'link',
  'card',
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

/** What a frame may take in all, so that it can be rendered in the memory there is: of all its pieces together. */
export const frameBounds = { pixels: 36_000_000, pieces: 100 } as const;
const boundWords = `A frame has at most ${frameBounds.pieces} pieces`;
const counts = z.int(`${boundWords}.`).min(1).max(frameBounds.pieces, `${boundWords}.`);
const gap = z.number().min(0).max(0.2);

/** Whether a list names each of 0 to `count - 1` once. */
const namesEach = (order: readonly number[], count: number) =>
  order.length === count && new Set(order).size === count && order.every((index) => index < count);

/** How several pieces of one picture belong together. Gaps are shares of a tile's width. */
export const GroupSchema = z.discriminatedUnion('kind', [
  z
    .object({ kind: z.literal('panels'), min: z.int().min(2), max: counts })
    .refine(({ min, max }) => min <= max, 'There have to be at least as many panels at most as at least.'),
  z
    .object({
      kind: z.literal('block'),
      columns: counts,
      rows: counts,
      gap,
      /** Reading index (row by row, from 0) of the tile uploaded first, second, … */
      postingOrder: z.array(z.int().min(0)).max(frameBounds.pieces, `${boundWords}.`),
    })
    .refine(({ columns, rows }) => columns * rows <= frameBounds.pieces, `${boundWords}.`)
    .refine(
      ({ columns, rows, postingOrder }) => namesEach(postingOrder, columns * rows),
      'The posting order has to name every tile once, from 0 to one less than there are.',
    ),
  z
    .object({
      kind: z.literal('quilt'),
      columns: counts,
      minRows: counts,
      maxRows: counts,
      gap,
      posting: z.enum(['first tile first', 'last tile first']),
    })
    .refine(({ minRows, maxRows }) => minRows <= maxRows, 'There have to be at least as many rows at most as at least.')
    .refine(({ columns, maxRows }) => columns * maxRows <= frameBounds.pieces, `${boundWords}.`),
]);
export type Group = z.infer<typeof GroupSchema>;

/** One named slot of a network with its spec: its fields, each by itself. */
export const PlaceFieldsSchema = z.object({
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
  /** Where numbers that a dry run has measured were taken over: when the newest was measured, and how often that has changed. */
  measured: z.object({ on: z.iso.date(), version: z.int().positive() }).optional(),
});

type Sized = Pick<z.infer<typeof PlaceFieldsSchema>, 'width' | 'height' | 'group'>;

/** The most pieces that a place takes. */
const mostPieces = ({ group }: Sized): number => {
  if (!group) return 1;
  if (group.kind === 'panels') return group.max;
  return group.columns * (group.kind === 'block' ? group.rows : group.maxRows);
};

/** Why a place is too large in all, in words; null where it is not. */
export function placeProblem(place: Sized): string | null {
  const { width, height } = place;
  const pixels = width * (typeof height === 'number' ? height : height.max) * mostPieces(place);
  if (pixels <= frameBounds.pixels) return null;
  const [asked, most] = [pixels, frameBounds.pixels].map((value) => Math.round(value / 1e6).toLocaleString('en'));
  return (
    `This place has up to ${asked} megapixels in all its pieces; at most ${most} megapixels can be made. ` +
    'Give it smaller sides or fewer pieces.'
  );
}

/** Refuses what is too large in all. */
export const boundedPlace = (place: Sized, context: z.RefinementCtx): void => {
  const message = placeProblem(place);
  if (message) context.addIssue({ code: 'custom', path: ['width'], message });
};

/** One named slot of a network with its spec. */
export const PlaceSchema = PlaceFieldsSchema.superRefine(boundedPlace);
export type Place = z.infer<typeof PlaceSchema>;

/** One network's places. */
export const SpecSheetSchema = z.object({
  slug: SlugSchema,
  name: z.string().min(1).max(40),
  kind: z.string().min(1),
  /** ISO date on which the numbers were last compared with the network's own. */
  checkedOn: z.iso.date(),
  /** Not known of a sheet of one's own. */
  afterUpload: AfterUploadSchema.optional(),
  /** Between which lengths a side may lie where files of other dimensions than a place's, in its ratio, are taken too. */
  otherSides: z.object({ least: z.int().positive(), most: z.int().positive() }).optional(),
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
