import { z } from 'zod';
import { DetailKeptSchema } from './detail.ts';
import { FinishFiguresSchema } from './figures.ts';
import { WeightSchema } from './weight.ts';

/** What was measured of a frame as it is saved. */
export const MeasuredSchema = z.object({
  frameId: z.uuid(),
  planHash: z.string(),
  /** Null while it is being measured. */
  weight: WeightSchema.nullable(),
  detail: z.array(DetailKeptSchema).nullable(),
  /** Only a finished frame has figures. */
  isFinished: z.boolean(),
  figures: FinishFiguresSchema.nullable(),
});
export type Measured = z.infer<typeof MeasuredSchema>;

/** Whether nothing of a frame is still being measured. */
export const isAllMeasured = ({ weight, detail, isFinished, figures }: Measured): boolean =>
  weight !== null && detail !== null && (!isFinished || figures !== null);
