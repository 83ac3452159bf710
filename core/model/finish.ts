import { z } from 'zod';
import { ColourSchema } from './backing.ts';
import { NameSchema } from './name.ts';

/** What the numbers of a treatment may be. Radii and widths are in pixels of the file, levels are of 255. */
export const treatmentRanges = {
  oversize: { least: 1, most: 2.5 },
  amount: { least: 0, most: 5 },
  radius: { least: 0.2, most: 4 },
  threshold: { least: 0, most: 40 },
  share: { least: 0, most: 1 },
  midtones: { least: 0.2, most: 5 },
  saturation: { least: 0, most: 3 },
  clip: { least: 0, most: 0.05 },
  border: { least: 1, most: 200 },
} as const;

const within = (name: string, { least, most }: { least: number; most: number }) => {
  const words = `${name} is a number from ${least} to ${most}.`;
  return z.number(words).min(least, words).max(most, words);
};

/** One unsharp masking of the luminance. */
export const SharpeningSchema = z.object({
  /** How many times the difference to the blurred picture is added; 0 leaves the picture as it is. */
  amount: within('An amount', treatmentRanges.amount),
  /** Standard deviation of the blur, in pixels of the file. */
  radius: within('A radius', treatmentRanges.radius),
  /** Differences up to so many levels of 255 are taken for noise. */
  threshold: within('A threshold', treatmentRanges.threshold),
});
export type Sharpening = z.infer<typeof SharpeningSchema>;

export const scalingKernels = ['lanczos3', 'lanczos2', 'mitchell', 'cubic'] as const;
export type ScalingKernel = (typeof scalingKernels)[number];

/** How brightness and colourfulness are held against the plain scaling. */
export const CompensationSchema = z.discriminatedUnion('kind', [
  /** Measured, and put back exactly. */
  z.object({ kind: z.literal('measured') }),
  z.object({
    kind: z.literal('by hand'),
    midtones: within('Midtones', treatmentRanges.midtones),
    saturation: within('Saturation', treatmentRanges.saturation),
  }),
  z.object({ kind: z.literal('off') }),
]);
export type Compensation = z.infer<typeof CompensationSchema>;

const level = z.number().min(0).max(255);

/** Black point, white point and midtones. */
export const ToneSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('as it is') }),
  /** Points found on the histogram, so that this share of the pixels is clipped at each end. */
  z.object({ kind: z.literal('automatic'), clip: within('The clipped share', treatmentRanges.clip) }),
  /** For scans: the paper's colour becomes white, lines stay. */
  z.object({ kind: z.literal('paper') }),
  z
    .object({
      kind: z.literal('by hand'),
      black: level,
      white: level,
      midtones: within('Midtones', treatmentRanges.midtones),
    })
    .refine(({ black, white }) => white - black >= 2, 'The white point has to be above the black point.'),
]);
export type Tone = z.infer<typeof ToneSchema>;

/** A thin line round a picture, so that it does not melt into the page. */
export const BorderSchema = z.object({
  width: z.int().min(treatmentRanges.border.least).max(treatmentRanges.border.most),
  colour: ColourSchema,
  /** Outside of the picture's own edge, so that the picture is made smaller for it, or inside, over the picture. */
  side: z.enum(['outside', 'inside']),
  edges: z.object({ left: z.boolean(), top: z.boolean(), right: z.boolean(), bottom: z.boolean() }),
  /** Of a picture that is cut: round the whole, or inside of every piece. */
  round: z.enum(['whole', 'pieces']),
});
export type Border = z.infer<typeof BorderSchema>;

/** What is done to a picture for its small size, in this order. */
export const TreatmentSchema = z.object({
  /** It is sharpened at so many times its final dimensions, as far as the original has the pixels. */
  oversize: within('Oversize', treatmentRanges.oversize),
  kernel: z.enum(scalingKernels),
  sharpen: SharpeningSchema,
  second: SharpeningSchema,
  /** How much of the second pass is blended in, 0..1. */
  blend: within('A blend', treatmentRanges.share),
  /** No pixel gets brighter or darker than its surroundings by more than this share of their contrast. */
  halo: within('The halo limit', treatmentRanges.share),
  compensate: CompensationSchema,
  tone: ToneSchema,
  saturation: within('Saturation', treatmentRanges.saturation),
  border: BorderSchema.nullable(),
});
export type Treatment = z.infer<typeof TreatmentSchema>;

export const FinishSettingsSchema = z.object({
  name: NameSchema,
  /** What it is for, in a sentence. */
  description: z.string().trim().max(300, 'A description can have at most 300 characters.'),
  treatment: TreatmentSchema,
});
export type FinishSettings = z.infer<typeof FinishSettingsSchema>;

/** A named treatment. `version` grows by one with every save. Those that ship have a word as id and cannot be changed. */
export const FinishSchema = FinishSettingsSchema.extend({
  id: z.string().min(1),
  version: z.int().positive(),
  shipped: z.boolean(),
});
export type Finish = z.infer<typeof FinishSchema>;

/** What a frame or an original has of its own; null where it goes along with what stands above it. */
export const FinishChoiceSchema = z.object({
  finishId: z.string().nullable(),
  blend: TreatmentSchema.shape.blend.nullable(),
});
export type FinishChoice = z.infer<typeof FinishChoiceSchema>;

/** A finish as a file: everything about it but where it is kept. */
export const FinishFileSchema = FinishSettingsSchema.extend({ inkwellFinish: z.literal(1) });
export type FinishFile = z.infer<typeof FinishFileSchema>;
