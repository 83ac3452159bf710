import { z } from 'zod';
import { PlaceSchema } from './book/place.ts';
import { DimensionsSchema } from './book/rules.ts';
import { ImageFormatSchema } from './format.ts';
import { PostingWordsSchema } from './posting.ts';
import { SpotSchema } from './similarity.ts';
import { ChromaSchema } from './weighing.ts';
import { WeightUnitSchema } from './weight.ts';

/** What a rendered file was measured to be after it had been opened again. */
export const MeasuredFileSchema = DimensionsSchema.extend({
  bytes: z.int().positive(),
  format: z.string(),
});
export type MeasuredFile = z.infer<typeof MeasuredFileSchema>;

/** Which piece of a strip, a block or a quilt a file is. */
export const PieceOfWholeSchema = z.object({
  /** In reading order, from 0: row by row. */
  index: z.int().min(0),
  /** As it is to be uploaded, from 1. */
  number: z.int().positive(),
  of: z.int().positive(),
  /** From 1. */
  column: z.int().positive(),
  row: z.int().positive(),
  columns: z.int().positive(),
  rows: z.int().positive(),
});
export type PieceOfWhole = z.infer<typeof PieceOfWholeSchema>;

/** The step across the seam to the next piece, in levels of 255: as decoded, and in the undivided picture. */
export const SeamStepSchema = z.object({ next: z.int().min(0), step: z.number(), undivided: z.number() });
export type SeamStep = z.infer<typeof SeamStepSchema>;

/** What a place was when something was delivered to it. */
export const PlaceThenSchema = z.object({
  /** `network/place`. */
  id: z.string(),
  /** Its sheet, the date on which the sheet's numbers were last checked, and the version of a sheet of one's own. */
  sheet: z.object({ slug: z.string(), checkedOn: z.iso.date(), version: z.int().positive().optional() }),
  spec: PlaceSchema,
});
export type PlaceThen = z.infer<typeof PlaceThenSchema>;

/** One line of `manifest.json`. */
export const ManifestFileSchema = DimensionsSchema.extend({
  file: z.string(),
  original: z.string(),
  originalSha256: z.string(),
  network: z.string(),
  place: z.string(),
  /** Not known of deliveries from before it was noted. */
  placeThen: PlaceThenSchema.optional(),
  bytes: z.int().positive(),
  sha256: z.string(),
  format: ImageFormatSchema,
  quality: z.int().nullable(),
  /** Where a person chose other dimensions than the place's, in the same ratio: its pixels across. */
  uploadWidth: z.int().positive().optional(),
  /** Null where the format keeps every pixel's colour anyway, and of deliveries from before it was noted. */
  chroma: ChromaSchema.nullable().default(null),
  /** Of a palette; null where the file has none. */
  colours: z.int().positive().nullable().default(null),
  /** To the uncompressed picture, measured on these bytes; 0..100. */
  similarity: z.number().optional(),
  worstSpot: SpotSchema.optional(),
  limitBytes: z.int().positive(),
  limitUnit: WeightUnitSchema,
  /** In original pixels, as it would lie without its turn about its middle. */
  window: z.object({
    left: z.number(),
    top: z.number(),
    width: z.number(),
    height: z.number(),
    turn: z.number().default(0),
    mirror: z.boolean().default(false),
  }),
  planHash: z.string(),
  /** How it was finished; `version` is that of the finish at the time. */
  finish: z.object({ name: z.string(), version: z.int(), blend: z.number() }).optional(),
  /** What is written on it, in the order of importance; left out where nothing is. */
  words: z.array(z.string()).optional(),
  /** Of a picture that was cut; `window` is that of the whole. */
  piece: PieceOfWholeSchema.optional(),
  seams: z.array(SeamStepSchema).optional(),
  /** What is pasted where it is posted. */
  posting: PostingWordsSchema.optional(),
});
export type ManifestFile = z.infer<typeof ManifestFileSchema>;

/** A file that did not come out as its place demands and is therefore not in the archive. */
export const LeftOutSchema = z.object({
  file: z.string(),
  network: z.string(),
  place: z.string(),
  reasons: z.array(z.string()),
});
export type LeftOut = z.infer<typeof LeftOutSchema>;

/** `manifest.json` of an archive: every file with its path there. */
export const ManifestSchema = z.object({
  manifest: z.literal(2),
  project: z.string(),
  delivered: z.iso.datetime(),
  files: z.array(ManifestFileSchema),
  leftOut: z.array(LeftOutSchema),
});
export type Manifest = z.infer<typeof ManifestSchema>;

/** One run that writes files; kept. */
export const DeliverySchema = z.object({
  id: z.uuid(),
  projectId: z.uuid(),
  pattern: z.string(),
  state: z.enum(['waiting', 'working', 'done', 'failed', 'cancelled']),
  frameCount: z.int(),
  doneCount: z.int(),
  bytes: z.int(),
  createdAt: z.iso.datetime(),
  files: z.array(ManifestFileSchema),
  leftOut: z.array(LeftOutSchema),
  /** In words, where `state` is `failed`. */
  failure: z.string().nullable(),
});
export type Delivery = z.infer<typeof DeliverySchema>;
