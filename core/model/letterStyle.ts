import { z } from 'zod';
import { ColourSchema } from './backing.ts';
import { fontRanges } from './font.ts';
import { NameSchema } from './name.ts';

/** What the numbers of a style may be. An em is the height of a font: all lengths grow with the letters. */
export const letterRanges = {
  weight: fontRanges.weight,
  width: fontRanges.width,
  letterSpacing: { least: -0.1, most: 0.5 },
  lineHeight: { least: 0.7, most: 2 },
  outline: { least: 0.01, most: 0.2 },
  shadowShift: { least: -0.3, most: 0.3 },
  shadowBlur: { least: 0, most: 0.5 },
  padding: { least: 0, most: 1 },
  rounding: { least: 0, most: 1 },
  opacity: { least: 0, most: 1 },
  reach: { least: 0.2, most: 1 },
} as const;

const within = (name: string, { least, most }: { least: number; most: number }) => {
  const words = `${name} is a number from ${least} to ${most}.`;
  return z.number(words).min(least, words).max(most, words);
};

const opacity = within('Opacity', letterRanges.opacity);

/** What sets words off from the picture under them. Lengths are in em. */
export const SetOffSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  /** A line round the letters, outside of them. */
  z.object({ kind: z.literal('outline'), width: within('An outline', letterRanges.outline), colour: ColourSchema }),
  z.object({
    kind: z.literal('shadow'),
    right: within('A shift of a shadow', letterRanges.shadowShift),
    down: within('A shift of a shadow', letterRanges.shadowShift),
    /** Standard deviation. */
    blur: within('The blur of a shadow', letterRanges.shadowBlur),
    colour: ColourSchema,
    opacity,
  }),
  /** A surface under the words. */
  z.object({
    kind: z.literal('plate'),
    padding: within('Padding', letterRanges.padding),
    /** Of the corners: 1 makes the ends round. */
    rounding: within('Rounding', letterRanges.rounding),
    colour: ColourSchema,
    opacity,
  }),
  /** The picture is darkened or lightened towards the side at which the words stand. */
  z.object({
    kind: z.literal('shade'),
    colour: ColourSchema,
    /** At the edge of the frame. */
    opacity,
    /** Share of the frame over which it fades. */
    reach: within('The reach of a shade', letterRanges.reach),
  }),
]);
export type SetOff = z.infer<typeof SetOffSchema>;

/** How words look. */
export const LetterStyleSchema = z.object({
  /** A font family's id. */
  family: z.string().min(1),
  weight: within('A weight', letterRanges.weight),
  /** Per cent of the family's normal width, as far as the family has others. */
  width: within('A width', letterRanges.width),
  /** In em. */
  letterSpacing: within('Letter-spacing', letterRanges.letterSpacing),
  /** From baseline to baseline, in em. */
  lineHeight: within('Line-height', letterRanges.lineHeight),
  /** Of lines to each other: `start` is the left of words that are read from the left. By place: the side they stand at. */
  align: z.enum(['by place', 'start', 'middle', 'end']),
  case: z.enum(['as written', 'capitals']),
  colour: ColourSchema,
  /** Used where the first one cannot be told from the picture; null where there is only one. */
  otherColour: ColourSchema.nullable(),
  setOff: SetOffSchema,
});
export type LetterStyle = z.infer<typeof LetterStyleSchema>;

export const LetterStyleSettingsSchema = z.object({ name: NameSchema, style: LetterStyleSchema });
export type LetterStyleSettings = z.infer<typeof LetterStyleSettingsSchema>;

/** A style under a name. Those that ship have a word as id and cannot be changed. */
export const NamedLetterStyleSchema = LetterStyleSettingsSchema.extend({ id: z.string().min(1), shipped: z.boolean() });
export type NamedLetterStyle = z.infer<typeof NamedLetterStyleSchema>;

/** A style as a file: everything about it but where it is kept. */
export const LetterStyleFileSchema = LetterStyleSettingsSchema.extend({ inkwellLetterStyle: z.literal(1) });
export type LetterStyleFile = z.infer<typeof LetterStyleFileSchema>;
