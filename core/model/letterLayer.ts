import { z } from 'zod';
import { ColourSchema } from './backing.ts';
import { DimensionsSchema } from './book/rules.ts';

const PointSchema = z.object({ x: z.number(), y: z.number() });
const RectSchema = z.object({ left: z.number(), top: z.number(), width: z.number(), height: z.number() });

/** One thing that is painted over a picture. All lengths are in pixels of the file at its full dimensions. */
export const LetterLayerSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('outline'),
    /** SVG path data, filled by the nonzero rule. */
    path: z.string(),
    colour: ColourSchema,
    opacity: z.number(),
    /** Of a line of the same colour along the path, half of it outside; 0 for none. */
    stroke: z.number().min(0),
    /** Standard deviation; 0 for a sharp one. */
    blur: z.number().min(0),
  }),
  /** A colour that fades away from one point to another, and stays as it is before the first. */
  z.object({
    kind: z.literal('shade'),
    within: RectSchema,
    from: PointSchema,
    to: PointSchema,
    colour: ColourSchema,
    opacity: z.number(),
  }),
  /** Another original, whole. */
  z.object({
    kind: z.literal('picture'),
    originalId: z.uuid(),
    picture: DimensionsSchema.extend({ sha256: z.string(), page: z.int().min(0), hasAlpha: z.boolean() }),
    within: RectSchema,
  }),
]);
export type LetterLayer = z.infer<typeof LetterLayerSchema>;

/** An item as it stands in a file. */
export const LetteredItemSchema = z.object({
  itemId: z.uuid(),
  /** What it says; empty for what has no words. */
  text: z.string(),
  /** Its ink, in pixels of the file. */
  box: RectSchema,
  /** The frame, or the piece of it, that it stands on, in pixels of the file. */
  piece: RectSchema,
  /** Height of its smallest lower-case x, in pixels of the file; null for what has no words. */
  xHeight: z.number().nullable(),
  /** Which of the layers are its letters, counted from the lowest; null for what has no words. */
  letters: z.int().min(0).nullable(),
  /** Pixels to one of its em, or its longer side. */
  em: z.number().positive(),
  lines: z.int().positive(),
  /** Whether a hand has put it there. */
  isMoved: z.boolean(),
});
export type LetteredItem = z.infer<typeof LetteredItemSchema>;
