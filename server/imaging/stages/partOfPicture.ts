import { besideClosing, drawnAt, mostFinished, planContentArea, type RenderPlan } from '@inkwell/core/planning';
import { UserError } from '../../userError.ts';
import type { WorkingCopy } from '../copies/workingCopy.ts';
import { fromPixels } from './pixels.ts';
import { laidPixels } from './renderPixels.ts';

/** Which part of which stage of a picture is wanted; without dimensions, all of it. */
export interface PartAsked {
  stage: 'plain' | 'enlarged';
  oversize: number;
  left: number;
  top: number;
  width?: number | undefined;
  height?: number | undefined;
}

/** A picture is finished up to so many pixels, and enlarged for that by no more than a fifth at that size. */
const mostDrawn = mostFinished * 1.3;

/** Pixels of an unfinished picture as a PNG. @throws UserError where the part lies outside of it */
export async function partOfPicture(plan: RenderPlan, asked: PartAsked, copy: WorkingCopy): Promise<Buffer> {
  const { strip } = besideClosing(plan);
  const { pixels: contentArea } = planContentArea(strip);
  const times = asked.stage === 'enlarged' ? asked.oversize : 1;
  const output = { width: Math.round(contentArea.width * times), height: Math.round(contentArea.height * times) };
  // What is not finished is not looked at either; and it has to be drawn whole.
  if (output.width * output.height > mostDrawn) {
    throw new UserError(`The picture would be ${output.width} × ${output.height} px; a part of it cannot be shown.`);
  }
  const { left, top, width = output.width - left, height = output.height - top } = asked;
  if (width < 1 || height < 1 || left + width > output.width || top + height > output.height) {
    throw new UserError(`That part lies outside of the picture, which is ${output.width} × ${output.height} px.`);
  }
  const picture = await laidPixels(drawnAt(strip, output), copy);
  return fromPixels(picture).extract({ left, top, width, height }).png({ compressionLevel: 1 }).toBuffer();
}
