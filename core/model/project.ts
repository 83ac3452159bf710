import { z } from 'zod';
import { PatternSchema, PlaceIdsSchema } from './book/placeSet.ts';
import { PinsSchema } from './book/sheetVersion.ts';
import { FrameSchema } from './frame.ts';
import { LetteringSchema } from './lettering.ts';
import { OriginalSchema } from './original.ts';
import { ProjectPostingSchema } from './posting.ts';
import { AimSchema } from './weighing.ts';
import { MetadataPolicySchema } from './words.ts';

/** What frames are composed from: what the program has seen beside a person's own marks, or those alone. */
export const ComposingSchema = z.enum(['seen', 'marks']);
export type Composing = z.infer<typeof ComposingSchema>;

export const ProjectSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  /** How its frames are finished, unless they or their originals say otherwise. */
  finishId: z.string(),
  /** What goes into its files beside the pixels. */
  keeping: MetadataPolicySchema,
  composing: ComposingSchema,
  /** What is laid over its pictures. */
  lettering: LetteringSchema,
  /** What is said with its pictures where they are posted. */
  posting: ProjectPostingSchema,
  /** Sheets of which it stays on a version. */
  pins: PinsSchema,
  /** How its files are named. */
  pattern: PatternSchema,
  /** Places that every picture gets when it is chosen. */
  usualPlaces: PlaceIdsSchema,
  /** What the bytes of its new frames are spent on; null where that follows from their limits. */
  usualAim: AimSchema.nullable(),
  /** Grows by one with every change of what people set on the bench. */
  version: z.int().positive(),
  createdAt: z.iso.datetime(),
  changedAt: z.iso.datetime(),
  frameCount: z.int(),
  /** Up to four frames that show what the project is about; without a hash where nothing can be planned of them. */
  cover: z.array(z.object({ frame: FrameSchema, original: OriginalSchema, planHash: z.string().nullable() })),
});
export type Project = z.infer<typeof ProjectSchema>;

/** A project with everything set for it. */
export const OpenProjectSchema = ProjectSchema.omit({ frameCount: true, cover: true }).extend({
  originals: z.array(OriginalSchema),
  frames: z.array(FrameSchema),
});
export type OpenProject = z.infer<typeof OpenProjectSchema>;

/** What people set for a whole project. */
export const ProjectSettingsSchema = ProjectSchema.pick({
  finishId: true,
  keeping: true,
  composing: true,
  lettering: true,
  posting: true,
  pins: true,
  pattern: true,
  usualPlaces: true,
  usualAim: true,
});
export type ProjectSettings = z.infer<typeof ProjectSettingsSchema>;
