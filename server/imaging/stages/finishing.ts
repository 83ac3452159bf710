import type { FinishFigures } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { inThread } from '../threads.ts';
import type { FinishResult, FinishTask } from './finishTask.ts';
import { type Pixels, shared } from './pixels.ts';

/** A picture as plain scaling makes it, and the same enlarged for sharpening. */
export interface Unfinished {
  plain: Pixels;
  enlarged: Pixels | null;
}

/** Is told what finishing has done to a picture; that is only measured where somebody listens. */
export interface FinishWatch {
  figures(figures: FinishFigures): void;
}

const task = new URL('./finishTask.ts', import.meta.url);

/** Carries out a plan's finish. */
export async function finished(
  { plain, enlarged }: Unfinished,
  { scale, ...treatment }: NonNullable<RenderPlan['finish']>,
  watch?: FinishWatch,
): Promise<Pixels> {
  const ratio = enlarged ? { x: enlarged.width / plain.width, y: enlarged.height / plain.height } : { x: 1, y: 1 };
  const { raster, figures } = await inThread<FinishTask, FinishResult>(task, {
    picture: {
      plain: shared(plain),
      enlarged: enlarged && { raster: shared(enlarged), left: 0, top: 0 },
      ratio,
      at: { left: 0, top: 0 },
      scale,
    },
    treatment,
    measured: watch !== undefined,
  });
  if (figures) watch?.figures(figures);
  const { data, width, height, channels } = raster;
  return { data: Buffer.from(data.buffer, data.byteOffset, data.byteLength), width, height, channels };
}
