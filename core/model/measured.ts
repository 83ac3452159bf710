import { z } from 'zod';
import { DetailKeptSchema } from './detail.ts';
import { FinishFiguresSchema } from './figures.ts';
import { LegibilitySchema } from './legibility.ts';
import { PlannedSchema } from './planned.ts';
import { WeightSchema } from './weight.ts';

/** What was measured of a frame as it is saved. */
export const MeasuredSchema = PlannedSchema.extend({
  frameId: z.uuid(),
  /** Null while it is being measured. */
  weight: WeightSchema.nullable(),
  detail: z.array(DetailKeptSchema).nullable(),
  /** How well its words can be read, from its file's own bytes. */
  legibility: z.array(LegibilitySchema).nullable(),
  /** Only a finished frame has figures. */
  isFinished: z.boolean(),
  figures: FinishFiguresSchema.nullable(),
  /** Why it could not be measured, in words; null where it was, or still is. */
  failure: z.string().nullable(),
});
export type Measured = z.infer<typeof MeasuredSchema>;

/** Whether everything about a frame is known. */
export const isAllMeasured = ({
  weight,
  detail,
  legibility,
  isFinished,
  figures,
}: Pick<Measured, 'weight' | 'detail' | 'legibility' | 'isFinished' | 'figures'>): boolean =>
  weight !== null && detail !== null && legibility !== null && (!isFinished || figures !== null);

/** Whether nothing of a frame is still being measured: all is known, or it could not be. */
export const isSettled = (measured: Measured): boolean => measured.failure !== null || isAllMeasured(measured);
