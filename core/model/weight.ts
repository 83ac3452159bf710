import { z } from 'zod';
import { DeliveryFormatSchema } from './format.ts';

/** kB and MB count in thousands, MiB in 1,048,576: networks use both and people confuse them. */
export const WeightUnitSchema = z.enum(['kB', 'MB', 'MiB']);
export type WeightUnit = z.infer<typeof WeightUnitSchema>;

export const LimitSchema = z.object({ bytes: z.int().positive(), unit: WeightUnitSchema });
export type Limit = z.infer<typeof LimitSchema>;

/** What a full-resolution encoding of one plan was measured to weigh. */
export const WeightSchema = z.object({
  planHash: z.string(),
  format: DeliveryFormatSchema,
  /** Encoder quality 1..100; null where the format has none. */
  quality: z.int().min(1).max(100).nullable(),
  bytes: z.int().positive(),
  /** True where `bytes` is at or under the plan's budget. */
  fits: z.boolean(),
});
export type Weight = z.infer<typeof WeightSchema>;

const unitBytes: Record<WeightUnit, number> = { kB: 1_000, MB: 1_000_000, MiB: 1_048_576 };

/** The bytes of a number in a unit. */
export const bytesOf = (value: number, unit: WeightUnit): number => Math.round(value * unitBytes[unit]);
/** How many of a unit bytes are. */
export const inUnit = (bytes: number, unit: WeightUnit): number => bytes / unitBytes[unit];

/** A weight in the given unit, e.g. `1.43 MiB`; below a hundredth of MB or MiB it steps down to kB. */
export function formatWeight(bytes: number, unit: WeightUnit): string {
  if (unit !== 'kB' && bytes < unitBytes[unit] / 10) return formatWeight(bytes, 'kB');
  const value = bytes / unitBytes[unit];
  return `${value.toFixed(unit === 'kB' ? 0 : 2)} ${unit}`;
}

/** A limit as a sheet writes it: `8 MB`, `1.5 MiB`, `500 kB`. */
export function formatLimit(limit: Limit): string {
  return `${Number((limit.bytes / unitBytes[limit.unit]).toFixed(2))} ${limit.unit}`;
}
