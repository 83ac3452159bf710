import { z } from 'zod';
import { ColourSchema } from './backing.ts';
import { FinishSchema } from './finish.ts';
import { FrameChangeSchema, FrameSchema } from './frame.ts';
import { TrimSchema } from './original.ts';
import { OpenProjectSchema } from './project.ts';
import { SimilaritySchema } from './similarity.ts';
import { EncodedFileSchema, WeightSchema } from './weight.ts';

// What is answered about things, and is none of them.

/** What came of a change of one of many frames: it is saved; or not, since it is otherwise now, its place does not take it, or it is gone. */
export const ChangedFrameSchema = z.discriminatedUnion('is', [
  z.object({ is: z.literal('saved'), id: z.uuid(), frame: FrameSchema }),
  z.object({ is: z.literal('elsewhere'), id: z.uuid(), frame: FrameSchema }),
  z.object({ is: z.literal('refused'), id: z.uuid(), reason: z.string() }),
  z.object({ is: z.literal('gone'), id: z.uuid() }),
]);
export type ChangedFrame = z.infer<typeof ChangedFrameSchema>;

/** Something that came with a project file, or is not as it was. */
export const ImportNoteSchema = z.object({
  text: z.string(),
  /** Whether something is left out. */
  isLoss: z.boolean(),
});
export type ImportNote = z.infer<typeof ImportNoteSchema>;

/** What came of taking a project in from a file. */
export const ImportedProjectSchema = z.object({ project: OpenProjectSchema, notes: z.array(ImportNoteSchema) });
export type ImportedProject = z.infer<typeof ImportedProjectSchema>;

/** A project as it is after a set of places was used, and the places of the set that are not in the book any more. */
export const AppliedSetSchema = z.object({ project: OpenProjectSchema, missing: z.array(z.string()) });
export type AppliedSet = z.infer<typeof AppliedSetSchema>;

/** The finishes that people made. */
export const FinishesSchema = z.object({
  finishes: z.array(FinishSchema),
  /** How many frames of all projects a finish holds for, by its id. */
  uses: z.record(z.string(), z.number()),
});
export type Finishes = z.infer<typeof FinishesSchema>;

/** What could be left away of an empty margin: all of it, and what lies beside the body as well. */
export const TrimProposalSchema = z.object({ trim: TrimSchema.nullable(), body: TrimSchema.nullable() });

/** Up to five colours that stand for a picture. */
export const ColoursOfSchema = z.object({ colours: z.array(ColourSchema) });

/** The colour of one pixel; null where it is transparent. */
export const ColourAtSchema = z.object({ colour: ColourSchema.nullable() });

/** What came of one encoding; its similarity is null where it was not asked for. */
export const TrialSchema = EncodedFileSchema.extend({ similarity: SimilaritySchema.nullable() });
export type Trial = z.infer<typeof TrialSchema>;

/** Another way to make a frame's file, with what it was measured to weigh. */
export const WeighedWaySchema = z.object({
  key: z.string(),
  label: z.string(),
  cost: z.string(),
  change: FrameChangeSchema,
  /** Null while it is being measured. */
  weight: WeightSchema.nullable(),
  /** Why it could not be measured, in words. */
  failure: z.string().nullable(),
});
export type WeighedWay = z.infer<typeof WeighedWaySchema>;

const ImportLineSchema = z.object({
  at: z.string(),
  place: z.string(),
  kind: z.enum(['new', 'changed', 'gone', 'not understood', 'same']),
  words: z.array(z.string()),
});
export type ImportedLine = z.infer<typeof ImportLineSchema>;

/** What a file would do to the spec book, without what its sheets say then. */
export const BookImportSchema = z.object({
  sheets: z.array(
    z.object({
      slug: z.string(),
      name: z.string(),
      kind: z.enum(['new', 'changed', 'same']),
      version: z.int().nullable(),
      note: z.string(),
      lines: z.array(ImportLineSchema),
    }),
  ),
  notUnderstood: z.array(ImportLineSchema),
});
export type BookImport = z.infer<typeof BookImportSchema>;

/** The id of a place that was added to a sheet. */
export const AddedPlaceSchema = z.object({ placeId: z.string() });
