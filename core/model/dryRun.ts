import { z } from 'zod';
import { ManifestFileSchema } from './delivery.ts';
import { NetworkRefusalCodeSchema, RenditionSchema } from './networkAnswers.ts';
import { SpotSchema } from './similarity.ts';
import { ChromaSchema } from './weighing.ts';

/** Why a network does not take a file: in its words, and in the program's. */
export const RefusedFileSchema = z.object({
  code: NetworkRefusalCodeSchema,
  /** What the network said. */
  said: z.string(),
  /** What the network takes, and what it measured, as far as it says so. */
  allowed: z.string().nullable(),
  measured: z.string().nullable(),
  /** The rule that was broken. */
  rule: z.string(),
  /** What to do. */
  fix: z.string(),
  /** What it takes at most, where it says so. */
  limitBytes: z.int().positive().nullable().default(null),
  mostFiles: z.int().positive().nullable().default(null),
  /** Whether the spec book would have taken it. */
  isNews: z.boolean(),
});
export type RefusedFile = z.infer<typeof RefusedFileSchema>;

/** What a network has cut off a file at each edge, in its pixels. */
export const LostEdgesSchema = z.object({
  left: z.number().min(0),
  top: z.number().min(0),
  right: z.number().min(0),
  bottom: z.number().min(0),
});
export type LostEdges = z.infer<typeof LostEdgesSchema>;

/** A mark, or words, that what was cut off takes something from. */
export const CutThingSchema = z.object({
  name: z.string(),
  isMust: z.boolean(),
  /** Of it that is gone, 0..1. */
  share: z.number().min(0).max(1),
});

/** How well words can be told from what lies round them: contrast ratios, as delivered and as shown at one width. */
export const WordsShownSchema = z.object({
  text: z.string(),
  delivered: z.number(),
  shown: z.number(),
  /** That words of this size need. */
  least: z.number(),
});
export type WordsShown = z.infer<typeof WordsShownSchema>;

/** How what is shown at one width differs from what was delivered, scaled well to that width. */
export const ShownAtSchema = RenditionSchema.extend({
  /** In CSS pixels. */
  shownWidth: z.int().positive(),
  /** Of the picture that came back. */
  sha256: z.string(),
  /** Of the whole post as the network’s page shows it; null where it was not fetched. */
  screen: z.string().nullable().default(null),
  similarity: z.number(),
  worst: SpotSchema,
  /** CIEDE2000 between areas: the mean, and of the hundredth that has moved most. */
  colourShift: z.object({ mean: z.number(), most: z.number() }),
  /** How far edges shoot over those of the delivered file: a share of the contrast. */
  halo: z.number(),
  words: z.array(WordsShownSchema),
});
export type ShownAt = z.infer<typeof ShownAtSchema>;

/** The step across a seam to the next piece, in levels of 255: as delivered, and as the network keeps it. */
export const ShownSeamSchema = z.object({ next: z.int().min(0), delivered: z.number(), shown: z.number() });
export type ShownSeam = z.infer<typeof ShownSeamSchema>;

/** What a network has made of a file. */
export const ComeBackSchema = z.object({
  kept: RenditionSchema.extend({
    sha256: z.string(),
    /** Null of what has no such choice, or does not say. */
    chroma: ChromaSchema.nullable(),
    /** As its tables say; null where it has none. */
    quality: z.int().nullable(),
  }),
  lost: LostEdgesSchema,
  cut: z.array(CutThingSchema),
  shown: z.array(ShownAtSchema),
  seams: z.array(ShownSeamSchema),
  /** Between two tiles of its block, as a share of a tile’s width; null where there is none. */
  gap: z.number().nullable().default(null),
});
export type ComeBack = z.infer<typeof ComeBackSchema>;

/** What became of one file in a dry run. */
export const DryRunOutcomeSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('shown'), back: ComeBackSchema }),
  z.object({ state: z.literal('refused'), refusal: RefusedFileSchema }),
  /** Not posted, because of another file of its post. */
  z.object({ state: z.literal('held back'), why: z.string() }),
  /** The network could not be reached, or is broken. */
  z.object({ state: z.literal('not reached'), why: z.string() }),
]);
export type DryRunOutcome = z.infer<typeof DryRunOutcomeSchema>;

export const DryRunFileSchema = z.object({
  position: z.int().min(0),
  line: ManifestFileSchema,
  /** The name of the first file of its post. */
  post: z.string(),
  /** Null while it is not over. */
  outcome: DryRunOutcomeSchema.nullable(),
});
export type DryRunFile = z.infer<typeof DryRunFileSchema>;

/** One run that uploads files to the simulated networks; kept. */
export const DryRunSchema = z.object({
  id: z.uuid(),
  projectId: z.uuid(),
  /** Null where frames were uploaded as they were. */
  deliveryId: z.uuid().nullable(),
  state: z.enum(['waiting', 'working', 'done', 'cancelled', 'failed']),
  createdAt: z.iso.datetime(),
  /** In words, where `state` is `failed`. */
  failure: z.string().nullable(),
  /** What is being waited for, in words; null where nothing is. */
  waiting: z.string().nullable(),
  files: z.array(DryRunFileSchema),
});
export type DryRun = z.infer<typeof DryRunSchema>;

/** How far a run is, in numbers of files. */
export const DryRunCountsSchema = z.object({
  files: z.int().min(0),
  /** Of which it is known what became. */
  over: z.int().min(0),
  shown: z.int().min(0),
  refused: z.int().min(0),
  /** Shown, with something cut off. */
  cut: z.int().min(0),
});
export type DryRunCounts = z.infer<typeof DryRunCountsSchema>;

/** A run in a list: without its files. */
export const DryRunSummarySchema = DryRunSchema.omit({ files: true, waiting: true }).extend({
  counts: DryRunCountsSchema,
});
export type DryRunSummary = z.infer<typeof DryRunSummarySchema>;
