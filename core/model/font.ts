import { z } from 'zod';

/** What weights and widths can be: thin to black, and per cent of a font's normal width. */
export const fontRanges = {
  weight: { least: 100, most: 900 },
  width: { least: 50, most: 200 },
} as const;

const rangeOf = ({ least, most }: { least: number; most: number }) =>
  z.object({ least: z.number().min(least).max(most), most: z.number().min(least).max(most) });

/** One file of a font family. A fixed font has one weight and one width; a variable one has ranges. */
export const FontFileSchema = z.object({
  id: z.string().min(1),
  weight: rangeOf(fontRanges.weight),
  width: rangeOf(fontRanges.width),
});
export type FontFile = z.infer<typeof FontFileSchema>;

/** A family of fonts that words are set in. */
export const FontFamilySchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1),
  /** What it looks like, in a word or two: "slab", "handwritten". */
  kind: z.string().min(1),
  /** Whether it is not offered where people choose: it is only there for letters that others lack, or was put aside. */
  isHidden: z.boolean(),
  /** Whether a person has added it. */
  isOwn: z.boolean(),
  files: z.array(FontFileSchema).min(1),
});
export type FontFamily = z.infer<typeof FontFamilySchema>;
