import { z } from 'zod';
import { ColourSchema } from './backing.ts';
import { PurposeSchema } from './book/place.ts';
import { DimensionsSchema } from './book/rules.ts';
import { LetterStyleSchema } from './letterStyle.ts';
import { NameSchema } from './name.ts';

/** Where an item would like to stand. */
export const WishSchema = z.enum([
  'wherever it is calm',
  'top left',
  'top',
  'top right',
  'left',
  'middle',
  'right',
  'bottom left',
  'bottom',
  'bottom right',
  'beside the subject',
  /** Under the words that stand before it in the list, as one block with them. */
  'under the words before',
]);
export type Wish = z.infer<typeof WishSchema>;

export const itemRanges = {
  /** Height of an em, or longer side of an emblem or a shape, as a share of the frame's shorter side. */
  wanted: { least: 0.01, most: 1 },
} as const;

const wantedWords = `How large an item would like to be is a share from ${itemRanges.wanted.least} to ${itemRanges.wanted.most}.`;
/** Words of a person's own. @param what they are, at the beginning of a sentence */
export const wordsSchema = (what: string) =>
  z
    .string()
    .max(600, `${what} can have at most 600 characters.`)
    .refine((value) => value.split('\n').length <= 12, `${what} can have at most 12 lines.`);

const PlateSchema = z.object({
  colour: ColourSchema,
  opacity: z.number().min(0).max(1),
  /** Of the corners: 1 makes the ends round. */
  rounding: z.number().min(0).max(1),
});

/** So many pictures a project can name in an item. */
const mostPictures = 500;

const common = z.object({
  id: z.uuid(),
  name: NameSchema,
  /** On which originals it is shown; null for all. */
  originalIds: z.array(z.uuid()).max(mostPictures).nullable(),
  /** Purposes of places that are left without it. */
  notOn: z.array(PurposeSchema),
  /** Places that are left without it. */
  notOnPlaces: z.array(z.string()).max(500),
  /** On which pieces of a picture that is cut; across, it lies over several of them, with the seams between its words. */
  onPieces: z.enum(['first', 'last', 'each', 'across']),
  wish: WishSchema,
  /** How large it would like to be, as a share of the frame's shorter side. */
  wanted: z.number(wantedWords).min(itemRanges.wanted.least, wantedWords).max(itemRanges.wanted.most, wantedWords),
});

/** What an item says on one picture instead of what it says on all. */
export const PictureWordsSchema = z.object({
  /** Empty where it is left out on that picture. */
  text: wordsSchema('Words'),
  short: wordsSchema('A short version'),
});
export type PictureWords = z.infer<typeof PictureWordsSchema>;

/** One thing that is laid over the pictures of a project. */
export const ItemSchema = z.discriminatedUnion('kind', [
  common.extend({
    kind: z.literal('words'),
    role: z.enum(['title', 'line', 'label', 'number']),
    /** Line breaks are breaks by hand. */
    text: wordsSchema('Words').refine((value) => value.trim() !== '', 'Words need at least one character.'),
    /** For frames where the long text cannot be legible; empty where there is none. */
    short: wordsSchema('A short version'),
    /** What it says on single pictures, by the ids of their originals. */
    onPictures: z
      .record(z.uuid(), PictureWordsSchema)
      .refine((own) => Object.keys(own).length <= mostPictures, `Words can differ on at most ${mostPictures} pictures.`)
      .optional(),
    style: LetterStyleSchema,
  }),
  common.extend({
    kind: z.literal('emblem'),
    originalId: z.uuid(),
    /** The picture of that original. */
    picture: DimensionsSchema.extend({
      sha256: z.string().regex(/^[0-9a-f]{64}$/),
      page: z.int().min(0),
      hasAlpha: z.boolean(),
    }),
    /** What stays free round it, as a share of its longer side. */
    clearSpace: z.number().min(0).max(1),
    /** A surface that takes its clear space, where it cannot be told from the picture alone; null for none. */
    plate: PlateSchema.nullable(),
  }),
  common.extend({
    kind: z.literal('shape'),
    form: z.enum(['plate', 'bar', 'rule', 'disc', 'arrow']),
    colour: ColourSchema,
    opacity: z.number().min(0).max(1),
  }),
]);
export type Item = z.infer<typeof ItemSchema>;
export type WordsItem = Extract<Item, { kind: 'words' }>;
export type EmblemItem = Extract<Item, { kind: 'emblem' }>;
export type ShapeItem = Extract<Item, { kind: 'shape' }>;

const mostItems = 12;

/** What is laid over the pictures of a project, the most important first. */
export const LetteringSchema = z
  .array(ItemSchema)
  .max(mostItems, `A project can have at most ${mostItems} items.`)
  .refine((items) => new Set(items.map(({ id }) => id)).size === items.length, 'No two items can have the same id.');
export type Lettering = z.infer<typeof LetteringSchema>;
