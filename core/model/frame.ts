import { z } from 'zod';
import { BackingSchema, ColourSchema, OpaqueBackingSchema } from './backing.ts';
import { DimensionsSchema, placeSides } from './book/rules.ts';
import { FinishChoiceSchema } from './finish.ts';
import { ImageFormatSchema } from './format.ts';
import { HandsSchema } from './hand.ts';
import { PlannedSchema } from './planned.ts';
import { asAbove, FramePostingSchema } from './posting.ts';
import { RingSchema } from './ring.ts';
import { VerdictSchema } from './verdict.ts';
import { plainWeighing, WeighingSchema } from './weighing.ts';
import { WindowSchema } from './window.ts';

export const stretches = { least: 0.25, most: 4 } as const;

export const GridSchema = z.object({ columns: z.int().min(1).max(100), rows: z.int().min(1).max(100) });

/** One original fitted to one place. `version` grows by one with every save. */
export const FrameSchema = z.object({
  id: z.uuid(),
  projectId: z.uuid(),
  originalId: z.uuid(),
  placeId: z.string(),
  /** Set by hand; of a composed frame only its turn and mirroring count. */
  window: WindowSchema,
  /** True while the window follows from the original's marks; false once a hand has moved it. */
  composed: z.boolean(),
  /** Null where the picture has to reach every edge of the frame. */
  backing: BackingSchema.nullable(),
  /** Only round and rounded frames have one. */
  ring: RingSchema.nullable(),
  /** A round or rounded frame is delivered as its shape, with nothing round it, instead of as a full rectangle. */
  cutOut: z.boolean(),
  /** The colour that comes under everything transparent; null keeps it transparent where the format can carry that. */
  flatten: ColourSchema.nullable(),
  /** How many times wider the picture is drawn than it is, against its height: 1 unless a person asks for a stretch. */
  stretch: z.number().min(stretches.least).max(stretches.most),
  /** Into how many panels or tiles it is cut, where its place takes several; null where it is one picture. */
  grid: GridSchema.nullable(),
  /** Ends a strip with one panel more, which shows the whole picture on this; null where it has no such panel. */
  closing: OpaqueBackingSchema.nullable(),
  /** Leaves out what the network's gaps hide, so that lines run straight across them. */
  bridged: z.boolean(),
  /** All pieces have the quality of the one that needs the lowest, so that no grain changes at a seam. */
  sharedQuality: z.boolean(),
  format: ImageFormatSchema,
  weighing: WeighingSchema,
  /** Which of the dimensions that its place takes, where those are several; null for those that serve the picture best. */
  dimensions: DimensionsSchema.nullable(),
  /** What its place had when a hand moved its window, where that has changed since; null once somebody has looked at it. */
  carriedFrom: DimensionsSchema.nullable(),
  /** Pixels across of its file where that has other dimensions than its place, in the same ratio; null for those of the place. */
  uploadWidth: z.int().min(placeSides.least).max(placeSides.most).nullable(),
  /** Null where it is finished as its original is, or its project. */
  finishId: FinishChoiceSchema.shape.finishId,
  /** Null where the finish's own blend holds, or that of its original. */
  blend: FinishChoiceSchema.shape.blend,
  /** What hands have set of the project's lettering in this frame. */
  hands: HandsSchema,
  /** What is said with it where it is posted. */
  posting: FramePostingSchema,
  /** What somebody has said of it while looking all frames over; null where nobody has. */
  verdict: VerdictSchema.nullable(),
  version: z.int().positive(),
});
export type Frame = z.infer<typeof FrameSchema>;

/** A frame just after it was saved; its plan is null where nothing can be planned of it. */
export const SavedFrameSchema = FrameSchema.extend({ planned: PlannedSchema.nullable() });
export type SavedFrame = z.infer<typeof SavedFrameSchema>;

/** The part of a frame that people set by hand. */
export const FrameSettingsSchema = FrameSchema.pick({
  window: true,
  composed: true,
  backing: true,
  ring: true,
  cutOut: true,
  flatten: true,
  stretch: true,
  grid: true,
  closing: true,
  bridged: true,
  sharedQuality: true,
  format: true,
  weighing: true,
  dimensions: true,
  carriedFrom: true,
  uploadWidth: true,
  finishId: true,
  blend: true,
  hands: true,
  posting: true,
  verdict: true,
});
export type FrameSettings = z.infer<typeof FrameSettingsSchema>;

/** What a frame has that nobody has set anything for, besides its window and format. */
export const plainSettings = {
  composed: true,
  backing: null,
  ring: null,
  cutOut: false,
  flatten: null,
  stretch: 1,
  grid: null,
  closing: null,
  bridged: false,
  sharedQuality: true,
  finishId: null,
  blend: null,
  weighing: plainWeighing,
  dimensions: null,
  carriedFrom: null,
  uploadWidth: null,
  hands: {},
  posting: asAbove,
  verdict: null,
} as const satisfies Partial<FrameSettings>;

/** A change to a frame: what a fix carries, and what the bench saves. */
export const FrameChangeSchema = FrameSettingsSchema.partial();
export type FrameChange = z.infer<typeof FrameChangeSchema>;

/** Which frame of a project it is: one picture at one place. */
export const pairKey = ({ originalId, placeId }: Pick<Frame, 'originalId' | 'placeId'>): string =>
  `${originalId} ${placeId}`;
