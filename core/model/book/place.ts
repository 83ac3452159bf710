import { z } from 'zod';
import { ImageFormatSchema } from '../format.ts';
import { LimitSchema } from '../weight.ts';
import { AreaSchema } from './area.ts';
import { frameBounds, GroupSchema } from './group.ts';
import { NumberSchema, ProvenanceSchema } from './provenance.ts';

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
  covered: z.array(AreaSchema).max(12, 'A place can have at most 12 covered areas.').default([]),
  /** The part that is shown everywhere, where that is not the whole. */
  shownPart: AreaSchema.optional(),
  /** Widths at which the audience sees it, in CSS pixels, largest first. */
  shownWidths: z.array(z.int().min(1).max(20_000)).max(12, 'At most 12 widths can be given.').default([]),
  /** A wish of the network that no rule enforces. */
  note: z.string().max(500, 'A note can have at most 500 characters.').optional(),
  group: GroupSchema.optional(),
  /** Where single numbers are from, as far as they are not from where the sheet is. */
  provenance: z.partialRecord(NumberSchema, ProvenanceSchema).optional(),
  /** Put away: frames that are made for it stay, and no new ones are offered. */
  isAway: z.boolean().optional(),
  /** Of a sheet of one's own: the id of that sheet, and the version of it in which this place has changed last. */
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
