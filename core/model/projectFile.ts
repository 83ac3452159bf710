import { z } from 'zod';
import { SheetFileSchema } from './book/sheet.ts';
import { FinishSettingsSchema } from './finish.ts';
import { FrameSettingsSchema } from './frame.ts';
import { NameSchema } from './name.ts';
import { OriginalSchema, originalLimits } from './original.ts';
import { ProjectSettingsSchema } from './project.ts';

/** What is read of a project file: more is none. */
export const projectFileLimits = {
  text: 64_000_000,
  originals: 2000,
  frames: 20_000,
  fonts: 60,
  fontBytes: 20_000_000,
} as const;

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);

/** A picture of the file with all that was set on it; its bytes lie in `originals`, under their SHA-256. */
const FileOriginalSchema = OriginalSchema.pick({
  id: true,
  page: true,
  words: true,
  marks: true,
  decided: true,
  trim: true,
  finishId: true,
  blend: true,
  rewritten: true,
}).extend({
  name: NameSchema,
  fileName: z.string().max(255),
  sha256,
  bytes: z.int().positive().max(originalLimits.bytes),
  /** False for pictures that are only there as emblems, or as what a drawing was rewritten from. */
  isChosen: z.boolean(),
});
export type FileOriginal = z.infer<typeof FileOriginalSchema>;

/** A project in a file, with all that its files follow from. Ids hold within the file; every machine gives its own. */
export const ProjectFileSchema = z.object({
  /** The version of this format. */
  projectFile: z.literal(1, 'This program reads project files of version 1 of their format.'),
  name: NameSchema,
  settings: ProjectSettingsSchema,
  /** In the order of the project. */
  originals: z.array(FileOriginalSchema).max(projectFileLimits.originals),
  frames: z
    .array(z.object({ originalId: z.uuid(), placeId: z.string().max(180), settings: FrameSettingsSchema }))
    .max(projectFileLimits.frames),
  /** The sheets of its places, as the project has them. */
  sheets: z.array(SheetFileSchema).max(500),
  /** The finishes that it names and that people have made. */
  finishes: z.array(FinishSettingsSchema.extend({ id: z.string().max(100) })).max(500),
  /** The fonts of people’s own that it is written in; their bytes lie in `fonts`, under their SHA-256. */
  fonts: z
    .array(
      z.object({
        id: z.string().max(120),
        name: NameSchema,
        sha256,
        bytes: z.int().positive().max(projectFileLimits.fontBytes),
      }),
    )
    .max(projectFileLimits.fonts),
});
export type ProjectFile = z.infer<typeof ProjectFileSchema>;
