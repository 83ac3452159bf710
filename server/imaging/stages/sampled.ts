import type { ScalingKernel } from '@inkwell/core/model';
import type { Raster } from '@inkwell/core/planes';
import { asStored, type ExactSteps, type Part, sampling, type WholeSteps } from '@inkwell/core/planning';
import sharp, { type Sharp } from 'sharp';
import { levelPath, type WorkingCopy } from '../copies/workingCopy.ts';
import { inThread } from '../threads.ts';
import { fromPixels, type Pixels, toPixels } from './pixels.ts';
import type { ResampleTask } from './resampleTask.ts';

const task = new URL('./resampleTask.ts', import.meta.url);

/** The pixels of a part, from the working copy, still as they are stored. */
export function sampledPart(part: Part, copy: WorkingCopy, kernel: ScalingKernel = 'lanczos3'): Promise<Pixels> {
  const stored = asStored(part, copy.orientation);
  const { level, whole, exact } = sampling(stored, copy.levels);
  const cut = sharp(levelPath(copy, level), { limitInputPixels: false }).extract((whole ?? exact).cut);
  return whole ? inWholeSteps(whole, cut, kernel) : exactly(exact, stored.output, cut, kernel);
}

async function inWholeSteps({ pad, resampleTo, trim }: WholeSteps, cut: Sharp, kernel: ScalingKernel): Promise<Pixels> {
  const isPadded = Object.values(pad).some((pixels) => pixels > 0);
  const padded = isPadded ? fromPixels(await toPixels(cut.extend({ ...pad, extendWith: 'copy' }))) : cut;
  const picture = padded.resize(resampleTo.width, resampleTo.height, { fit: 'fill', kernel });
  const { left, top, width, height } = trim;
  const isAll = left === 0 && top === 0 && width === resampleTo.width && height === resampleTo.height;
  return toPixels(isAll ? picture : picture.extract(trim));
}

/** @param kernel for scaling down; what is enlarged is drawn with a cubic one, which rings less */
async function exactly(
  { from, ratio }: ExactSteps,
  output: Part['output'],
  cut: Sharp,
  kernel: ScalingKernel,
): Promise<Pixels> {
  const raster = (await toPixels(cut)) as Raster;
  const enlarges = Math.min(ratio.x, ratio.y) < 1;
  const resampling = { from, ratio, output, kernel: enlarges ? ('cubic' as const) : kernel };
  const made = await inThread<ResampleTask, Raster>(task, { raster, resampling });
  const { data, ...rest } = made;
  return { ...rest, data: Buffer.from(data.buffer, data.byteOffset, data.byteLength) };
}
