import { z } from 'zod';
import { type ImageFormat, ImageFormatSchema } from '../format.ts';
import { type Limit, LimitSchema } from '../weight.ts';
import { AreaSchema } from './area.ts';
import { frameBounds, GroupSchema } from './group.ts';
import { NumberSchema, ProvenanceSchema } from './provenance.ts';
import { type Dimensions, OtherDimensionsSchema, SideSchema, sideWords, WishesSchema } from './rules.ts';

export const SlugSchema = z.string().regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'lower-case letters, digits and single hyphens');

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

const multipleWords = 'Sides can have to be divisible by a whole number from 2 to 64.';

/** One named slot of a network with its spec: its fields, each by itself. */
export const PlaceFieldsSchema = z.object({
  slug: SlugSchema,
  name: z.string().trim().min(1, 'A place needs a name.').max(60, 'A name can have at most 60 characters.'),
  purpose: PurposeSchema,
  /** With its height: what the place wants, or wishes for where it takes others too. */
  width: SideSchema,
  /** Exact, or a range where the network takes any height between two. */
  height: z.union(
    [
      SideSchema,
      z
        .object({ min: SideSchema, max: SideSchema })
        .refine(({ min, max }) => min < max, 'The least height has to be below the greatest.'),
    ],
    { error: sideWords },
  ),
  otherDimensions: OtherDimensionsSchema.optional(),
  /** Both sides have to be divisible by this. */
  multipleOf: z.int(multipleWords).min(2, multipleWords).max(64, multipleWords).optional(),
  /** The most pixels of one file. */
  mostPixels: z.int().min(64).max(frameBounds.pixels).optional(),
  formats: z.array(ImageFormatSchema).min(1, 'A place takes at least one format.'),
  /** Of one file. */
  limit: LimitSchema,
  /** Where a format has another limit than the rest. */
  formatLimits: z.partialRecord(ImageFormatSchema, LimitSchema).optional(),
  /** Of all files of one post together. */
  postLimit: LimitSchema.optional(),
  wishes: WishesSchema.optional(),
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

type Sized = Pick<
  z.infer<typeof PlaceFieldsSchema>,
  'width' | 'height' | 'group' | 'otherDimensions' | 'multipleOf' | 'mostPixels'
>;

/** The most pieces that a place takes. */
const mostPieces = ({ group }: Sized): number => {
  if (!group) return 1;
  if (group.kind === 'panels') return group.max;
  return group.columns * (group.kind === 'block' ? group.rows : group.maxRows);
};

const pixelsOf = ({ width, height }: Dimensions) => width * height;

/** The most pixels that one file of a place can have. */
function largestFile({ width, height, otherDimensions: other, mostPixels }: Sized): number {
  const wished = pixelsOf({ width, height: typeof height === 'number' ? height : height.max });
  if (!other) return wished;
  if (other.kind === 'list') return Math.max(wished, ...other.dimensions.map(pixelsOf));
  // No more than a place takes is ever asked of a range.
  return Math.max(wished, Math.min(other.mostSide ** 2, mostPixels ?? frameBounds.pixels));
}

/** Why a place is too large in all, in words; null where it is not. */
export function placeProblem(place: Sized): string | null {
  const pixels = largestFile(place) * mostPieces(place);
  if (pixels <= frameBounds.pixels) return null;
  const [asked, most] = [pixels, frameBounds.pixels].map((value) => Math.round(value / 1e6).toLocaleString('en'));
  return (
    `This place has up to ${asked} megapixels in all its pieces; at most ${most} megapixels can be made. ` +
    'Give it smaller sides or fewer pieces.'
  );
}

/** What contradicts itself in the rules of a place, by field. */
function contradictions(place: Sized): { path: string; message: string }[] {
  const { width, height, group, otherDimensions: other, multipleOf = 1, mostPixels } = place;
  const found: { path: string; message: string }[] = [];
  const isFree = typeof height !== 'number';
  if (group && (other || isFree)) {
    found.push({
      path: 'group',
      message: 'Pieces are all of one width and one height: a place in pieces takes no others.',
    });
  }
  if (other && isFree) {
    found.push({
      path: 'otherDimensions',
      message: 'A place has a free height, or takes a list or a range of ratios: not both.',
    });
  }
  const named = [{ width, height: isFree ? height.min : height }, ...(other?.kind === 'list' ? other.dimensions : [])];
  const odd = isFree
    ? width % multipleOf !== 0
    : named.some((one) => one.width % multipleOf || one.height % multipleOf);
  if (odd) found.push({ path: 'multipleOf', message: `Its own sides are not all divisible by ${multipleOf}.` });
  if (mostPixels !== undefined && named.some((one) => pixelsOf(one) > mostPixels)) {
    found.push({
      path: 'mostPixels',
      message: `Its own dimensions have more than ${mostPixels.toLocaleString('en')} pixels.`,
    });
  }
  if (other?.kind === 'ratios' && !isFree) {
    const { least, most, leastSide, mostSide } = other;
    const ratio = width / height;
    // As written down, 1.91 is not quite 1080 to 566.
    const isWithin = ratio > least * 0.99 && ratio < most * 1.01;
    if (!isWithin || Math.min(width, height) < leastSide || Math.max(width, height) > mostSide) {
      found.push({
        path: 'otherDimensions',
        message: 'The dimensions that the place wishes for lie outside of what it takes.',
      });
    }
  }
  return found;
}

/** Refuses what is too large in all, and rules that contradict each other. */
export const boundedPlace = (place: Sized, context: z.RefinementCtx): void => {
  const message = placeProblem(place);
  if (message) context.addIssue({ code: 'custom', path: ['width'], message });
  for (const { path, message } of contradictions(place)) context.addIssue({ code: 'custom', path: [path], message });
};

/** One named slot of a network with its spec. */
export const PlaceSchema = PlaceFieldsSchema.superRefine(boundedPlace);
export type Place = z.infer<typeof PlaceSchema>;

/**
 * A place as one frame meets it: one width and one height, its areas scaled to them, and nothing left to choose. `said` is the place as its
 * sheet says it.
 */
export interface SettledPlace extends Place {
  height: number;
  said: Place;
}

/** A place as its sheet says it. */
export const saidOf = (place: Place | SettledPlace): Place => ('said' in place ? place.said : place);

/** What a file in one format may weigh: what is said of that format, or of all. */
export const limitFor = ({ limit, formatLimits }: Pick<Place, 'limit' | 'formatLimits'>, format: ImageFormat): Limit =>
  formatLimits?.[format] ?? limit;
