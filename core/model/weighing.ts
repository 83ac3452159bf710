import { z } from 'zod';

/**
 * How much a file may differ from the picture: what is seen of it. `flick`: nothing, even when one flicks between the two;
 * `look`: nothing when one looks at the file alone; `glance`: nothing in passing, a careful look finds it.
 */
export const FidelityTierSchema = z.enum(['flick', 'look', 'glance']);
export type FidelityTier = z.infer<typeof FidelityTierSchema>;

/** What the bytes of a file are spent on. */
export const AimSchema = z.discriminatedUnion('kind', [
  /** The highest quality that fits the limit. */
  z.object({ kind: z.literal('as good as fits') }),
  /** The lightest file that still holds a level; as good as fits where the limit does not leave room for that. */
  z.object({ kind: z.literal('no heavier than it needs'), level: FidelityTierSchema }),
]);
export type Aim = z.infer<typeof AimSchema>;

/** Aims by the short names that screens and commands have for them. */
export const namedAims = {
  fits: { kind: 'as good as fits' },
  flick: { kind: 'no heavier than it needs', level: 'flick' },
  look: { kind: 'no heavier than it needs', level: 'look' },
  glance: { kind: 'no heavier than it needs', level: 'glance' },
} as const satisfies Record<string, Aim>;
export type AimName = keyof typeof namedAims;
export const aimNames = Object.keys(namedAims) as AimName[];

/** The colours of a PNG: all there are, or a palette of at most 256, spread over the pixels by dithering or not. */
export const ColoursSchema = z.enum(['full', 'palette', 'dithered palette']);
export type Colours = z.infer<typeof ColoursSchema>;

/** How finely colour is kept beside light: for every pixel, or one value for two by two. */
export const ChromaSchema = z.enum(['4:4:4', '4:2:0']);
export type Chroma = z.infer<typeof ChromaSchema>;

/** What people set about the encoding of a frame, beside its format. */
export const WeighingSchema = z.object({
  /** Null where it follows from how much room the place's limit leaves. */
  aim: AimSchema.nullable(),
  /** The highest quality that is tried, set by hand; null for the highest there is. */
  mostQuality: z.int().min(5).max(100).nullable(),
  /** `measured` keeps colour fine where it would be seen to smear. */
  chroma: z.enum(['measured', ...ChromaSchema.options]),
  colours: ColoursSchema,
  /** True once a person has said that a file may be worse than is otherwise delivered. */
  belowFloor: z.boolean(),
});
export type Weighing = z.infer<typeof WeighingSchema>;

export const plainWeighing: Weighing = {
  aim: null,
  mostQuality: null,
  chroma: 'measured',
  colours: 'full',
  belowFloor: false,
};
