import { z } from 'zod';
import { placeSides } from './book/rules.ts';
import { ImageFormatSchema } from './format.ts';
import { ChromaSchema } from './weighing.ts';

/** How a file is made so that what its network shows of it is best. */
export const UploadChoiceSchema = z.object({
  /** Its pixels across; null for those of its place. */
  width: z.int().min(placeSides.least).max(placeSides.most).nullable(),
  format: ImageFormatSchema,
  /** Null where the format has none. */
  quality: z.int().min(5).max(100).nullable(),
  /** Null where the format has no choice. */
  chroma: ChromaSchema.nullable(),
  /** Times the blend that the frame's finish has otherwise. */
  strength: z.number().positive(),
});
export type UploadChoice = z.infer<typeof UploadChoiceSchema>;

/** What is left of a frame where it is shown, against the uncompressed frame: 0..100. */
export const LeftAtSchema = z.object({
  /** In CSS pixels; null where it is opened in full: the picture that the network keeps, which dense screens show as well. */
  shownWidth: z.int().positive().nullable(),
  similarity: z.number(),
  /** The same at the spot that has come out worst. */
  worst: z.number(),
});
export type LeftAt = z.infer<typeof LeftAtSchema>;

/** A way to upload a frame that was tried, with what its network makes of it. */
export const TriedUploadSchema = z.object({
  choice: UploadChoiceSchema,
  /** In full, then at every width at which it is shown, the widest first. */
  left: z.array(LeftAtSchema).min(1),
  /** Of the heaviest file. */
  bytes: z.int().positive(),
  /** Whether the network scales it before it keeps it. */
  isRescaled: z.boolean(),
});
export type TriedUpload = z.infer<typeof TriedUploadSchema>;

/** What was found for one frame: as it is set, and as its network shows the most of it. */
export const SurvivalSchema = z.object({
  asSet: TriedUploadSchema,
  best: TriedUploadSchema,
  /** How many ways were tried. */
  tried: z.int().positive(),
});
export type Survival = z.infer<typeof SurvivalSchema>;

/** What somebody asked to be found out; what was found is null while it is being tried, and where it failed. */
export const AskedSurvivalSchema = z.object({
  survival: SurvivalSchema.nullable(),
  isWorking: z.boolean(),
  /** Why it could not be found out, in words. */
  failure: z.string().nullable(),
});
export type AskedSurvival = z.infer<typeof AskedSurvivalSchema>;

/** The way to upload that is used for all frames of a place, learned on one of them. */
export const LearnedUploadSchema = z.object({
  /** `network/place`. */
  placeId: z.string(),
  survival: SurvivalSchema,
  /** The name of the original that it was learned on. */
  learnedFrom: z.string(),
  learnedOn: z.iso.date(),
  /** Whether the place, or what its network does after an upload, has changed since. */
  isOutdated: z.boolean(),
});
export type LearnedUpload = z.infer<typeof LearnedUploadSchema>;
