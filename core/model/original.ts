import { z } from 'zod';
import { FinishChoiceSchema } from './finish.ts';
import { MarksSchema } from './mark.ts';
import { DecisionsSchema } from './proposal.ts';
import { RewrittenSchema } from './rewritten.ts';
import { OriginSchema, WordsSchema } from './words.ts';

export const TrimSchema = z.object({
  left: z.int().min(0),
  top: z.int().min(0),
  width: z.int().positive(),
  height: z.int().positive(),
});
export type Trim = z.infer<typeof TrimSchema>;

/** An imported picture. Its bytes never change; `width` and `height` are in pixels after the orientation tag is applied. */
export const OriginalSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  fileName: z.string(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  bytes: z.int().positive(),
  format: z.enum(['jpeg', 'png', 'webp', 'tiff', 'avif', 'svg', 'gif', 'heic', 'bmp', 'jxl']),
  width: z.int().positive(),
  height: z.int().positive(),
  hasAlpha: z.boolean(),
  /** Which page or frame of the file it is, from 0. */
  page: z.int().min(0),
  /** How many pages or frames the file has. */
  pages: z.int().positive(),
  words: WordsSchema,
  origin: OriginSchema,
  marks: MarksSchema,
  /** The proposals that are not proposed any more. */
  decided: DecisionsSchema,
  /** The part that counts as the picture, in whole pixels; null where all of it does. */
  trim: TrimSchema.nullable(),
  /** Null where it is finished as its project is. */
  finishId: FinishChoiceSchema.shape.finishId,
  blend: FinishChoiceSchema.shape.blend,
  /** The drawing that it was made from, and what it says instead of that; null where it came as it is. */
  rewritten: RewrittenSchema.nullable(),
  /** Grows by one with every change of what people set. */
  version: z.int().positive(),
  createdAt: z.iso.datetime(),
});
export type Original = z.infer<typeof OriginalSchema>;

/** What it takes to find the pixels of an original. */
export type PictureSource = Pick<Original, 'sha256' | 'page' | 'width' | 'height' | 'hasAlpha'>;

/** What people set on an original. */
export const OriginalSettingsSchema = OriginalSchema.pick({
  marks: true,
  decided: true,
  trim: true,
  finishId: true,
  blend: true,
  words: true,
});
export type OriginalSettings = z.infer<typeof OriginalSettingsSchema>;

/** What a picture may measure to be taken in. */
export const originalLimits = {
  bytes: 300_000_000,
  pixels: 400_000_000,
  /** Bytes of memory that opening a picture may need, estimated from its header. */
  decodingBytes: 1_200_000_000,
} as const;
