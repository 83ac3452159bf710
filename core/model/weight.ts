import { z } from 'zod';
import { ImageFormatSchema } from './format.ts';
import { countingSimilarity, SimilaritySchema } from './similarity.ts';
import { ChromaSchema } from './weighing.ts';

/** kB and MB count in thousands, MiB in 1,048,576: networks use both and people confuse them. */
export const WeightUnitSchema = z.enum(['kB', 'MB', 'MiB']);
export type WeightUnit = z.infer<typeof WeightUnitSchema>;

export const LimitSchema = z.object({ bytes: z.int().positive(), unit: WeightUnitSchema });
export type Limit = z.infer<typeof LimitSchema>;

/** How one file was encoded, and what came of it. */
export const EncodedFileSchema = z.object({
  bytes: z.int().positive(),
  /** Encoder quality 1..100; null where the format has none. */
  quality: z.int().min(1).max(100).nullable(),
  /** Null where the format keeps every pixel's colour anyway. */
  chroma: ChromaSchema.nullable(),
  /** How many colours its palette has; null where it has none. */
  colours: z.int().positive().nullable(),
  similarity: SimilaritySchema,
});
export type EncodedFile = z.infer<typeof EncodedFileSchema>;

/** What a picture is, by its pixels; shares are 0..1. */
export const PictureNatureSchema = z.object({
  kind: z.enum(['photo', 'flat artwork', 'mixed']),
  /** Of 32,768 that are told apart. */
  colours: z.int().min(0),
  /** Share of the pixels that are exactly like their neighbours. */
  flat: z.number(),
  /** Share of the pixels at hard edges. */
  edges: z.number(),
  /** How much neighbours differ where they hardly do, in levels of 255. */
  noise: z.number(),
  /** What would be left of its colours at the worst spot if they were kept half as fine, 0..100. */
  chromaKept: z.number(),
});
export type PictureNature = z.infer<typeof PictureNatureSchema>;

/** What a full-resolution encoding of one plan was measured to weigh. */
export const WeightSchema = z.object({
  planHash: z.string(),
  format: ImageFormatSchema,
  /** The lowest of all files; null where the format has none. */
  quality: z.int().min(1).max(100).nullable(),
  /** Of the heaviest file. */
  bytes: z.int().positive(),
  /** True where every file is at or under the plan's budget. */
  fits: z.boolean(),
  /** What metadata and profile take of every file. */
  metadataBytes: z.int().min(0),
  nature: PictureNatureSchema,
  /** One, or one for each piece in reading order. */
  files: z.array(EncodedFileSchema).min(1),
});
export type Weight = z.infer<typeof WeightSchema>;

/** What the least similar file of a frame is judged by. */
export const leastSimilarity = ({ files }: Pick<Weight, 'files'>): number =>
  Math.min(...files.map(({ similarity }) => countingSimilarity(similarity)));

/** The similarity at the worst spot of all files. */
export const worstSimilarity = ({ files }: Pick<Weight, 'files'>): number =>
  Math.min(...files.map(({ similarity }) => similarity.worst.similarity));

const unitBytes: Record<WeightUnit, number> = { kB: 1_000, MB: 1_000_000, MiB: 1_048_576 };

/** The bytes of a number in a unit. */
export const bytesOf = (value: number, unit: WeightUnit): number => Math.round(value * unitBytes[unit]);
/** How many of a unit bytes are. */
export const inUnit = (bytes: number, unit: WeightUnit): number => bytes / unitBytes[unit];

/** From so much of a unit on a weight is said in it; less is said in kB. Of MiB also less: kB and MiB do not go together. */
const saidFrom: Record<WeightUnit, number> = { kB: 0, MB: 1, MiB: 0.1 };

/** The unit in which a weight is said where limits are in `unit`. */
export const unitSaid = (bytes: number, unit: WeightUnit): WeightUnit =>
  inUnit(bytes, unit) < saidFrom[unit] ? 'kB' : unit;

/** A weight in the given unit, e.g. `1.43 MiB`, or in kB or bytes where that says more. */
export function formatWeight(bytes: number, unit: WeightUnit): string {
  if (bytes < unitBytes.kB) return bytes === 1 ? '1 byte' : `${bytes} bytes`;
  const said = unitSaid(bytes, unit);
  return `${inUnit(bytes, said).toFixed(said === 'kB' ? 0 : 2)} ${said}`;
}

/** A limit as a sheet writes it: `8 MB`, `1.5 MiB`, `500 kB`. */
export function formatLimit(limit: Limit): string {
  return `${Number((limit.bytes / unitBytes[limit.unit]).toFixed(2))} ${limit.unit}`;
}
