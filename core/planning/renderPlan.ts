import { z } from 'zod';
import {
  BackingSchema,
  BorderSchema,
  DimensionsSchema,
  LetteredItemSchema,
  LetterLayerSchema,
  OpaqueBackingSchema,
  RingSchema,
  TreatmentSchema,
  TrimSchema,
  WindowSchema,
} from '../model/index.ts';
import { EncodingPlanSchema } from './encodingPlan.ts';

/** Grows when the same plan would come out as other bytes, so that nothing cached under the old number is used. */
export const engineVersion = 13;

const RectSchema = z.object({ left: z.number(), top: z.number(), width: z.number(), height: z.number() });

/** Everything about the pixels and the encoding of one file. The same plan gives the same bytes. */
export const RenderPlanSchema = z.object({
  engine: z.int(),
  original: DimensionsSchema.extend({ sha256: z.string(), page: z.int().min(0) }),
  /** The part of the original that counts as the picture. */
  picture: TrimSchema,
  window: WindowSchema,
  /** What shows where the window reaches past the picture; null where it does not. */
  backing: BackingSchema.nullable(),
  output: DimensionsSchema,
  /** How many times wider the picture is drawn than it is. */
  stretch: z.number().positive(),
  /** The shape that a ring follows or that the file is cut out as; null for a plain rectangle. */
  shape: z
    .object({
      kind: z.enum(['ellipse', 'rounded']),
      /** Of the rounded corners, in output pixels. */
      radius: z.number().min(0),
      /** Its width in output pixels, which is a fraction in a proof. */
      ring: RingSchema.extend({ width: z.number().positive() }).nullable(),
      cutOut: z.boolean(),
    })
    .nullable(),
  /** How the output is cut into files; null where it is one. */
  grid: z.object({ columns: z.int(), rows: z.int(), piece: DimensionsSchema, bridge: z.int().min(0) }).nullable(),
  /** The panel at the end of a strip that shows the whole picture: its pixels across, and what it is drawn with. */
  closing: z.object({ width: z.int().positive(), window: WindowSchema, backing: OpaqueBackingSchema }).nullable(),
  /** What is done to the picture for its small size; null where it stays as scaling makes it. */
  finish: TreatmentSchema.omit({ border: true })
    .extend({
      /** How many times the output's dimensions it is sharpened at: what the original has the pixels for. */
      oversize: z.number().min(1),
      /** Pixels of the output to one of the file: less than 1 in a proof. */
      scale: z.number().positive(),
    })
    .nullable(),
  /** A line along the edges of what it runs `around`; in output pixels, which are fractions in a proof. */
  border: BorderSchema.extend({ width: z.number().positive(), around: z.array(RectSchema) }).nullable(),
  /** What is laid over the picture: layers as they are at full dimensions, items in pixels of the output. Null where nothing is. */
  lettering: z
    .object({
      /** Pixels of this plan's output to one of the full one's. */
      scale: z.object({ x: z.number().positive(), y: z.number().positive() }),
      layers: z.array(LetterLayerSchema),
      items: z.array(LetteredItemSchema),
    })
    .nullable(),
  /** Colour behind transparent parts, `#rrggbb`; null keeps them transparent. */
  flatten: z.string().nullable(),
  encoding: EncodingPlanSchema,
});
export type RenderPlan = z.infer<typeof RenderPlanSchema>;

/** A plan as it was kept; null where it is none of this engine: what another asks for would come out as other bytes. */
export function readPlan(kept: unknown): RenderPlan | null {
  const read = RenderPlanSchema.safeParse(kept).data;
  return read?.engine === engineVersion ? read : null;
}

/** How many files a plan has. */
export const fileCount = ({ grid }: RenderPlan): number => (grid ? grid.columns * grid.rows : 1);
