import { clampWindow, scaledBy, wholeOf } from '@inkwell/core/geometry';
import type { Dimensions } from '@inkwell/core/model';
import { derivedPlan, planContentArea, type RenderPlan } from '@inkwell/core/planning';
import sharp from 'sharp';
import { fromPixels, type Pixels } from './pixels.ts';

/** An echo is blurred by this part of the frame's longer side. */
const echoBlur = 0.03;
/** It is blurred at so many pixels of the longer side: detail finer than that would not survive the blur. */
const echoSide = 320;
/** Slightly darker and paler than the picture, so that the picture stands out from its own echo. */
const echoTone = { brightness: 0.9, saturation: 0.85 };

/** An echo takes part in the tone of its picture; there is nothing in it to sharpen. */
const unsharpened = ({ finish }: RenderPlan): RenderPlan['finish'] =>
  finish && {
    ...finish,
    oversize: 1,
    sharpen: { ...finish.sharpen, amount: 0 },
    second: { ...finish.second, amount: 0 },
    compensate: finish.compensate.kind === 'measured' ? { kind: 'off' } : finish.compensate,
  };

/** The window of the echo: as much of the picture as fills the frame, round the middle of what the frame shows. */
export function echoPlan(plan: RenderPlan): RenderPlan {
  const { left, top, width, height } = plan.picture;
  const bounds = { ...wholeOf({ width, height }), box: { left, top, width, height } };
  const contentArea = planContentArea(plan);
  const { pixels } = contentArea;
  const share = Math.min(1, echoSide / Math.max(pixels.width, pixels.height));
  const output = scaledBy(pixels, share);
  const window = clampWindow(plan.window, bounds, contentArea.window);
  return derivedPlan(plan, { output, window, backing: null, finish: unsharpened(plan) });
}

/** Makes an echo of the small picture that `echoPlan` asked for. */
export async function blurred(small: Pixels, { width, height }: Dimensions): Promise<Pixels> {
  const soft = await fromPixels(small)
    .removeAlpha()
    .blur(Math.max(0.3, echoBlur * Math.max(small.width, small.height)))
    .modulate(echoTone)
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { data, info } = await sharp(soft.data, {
    raw: { width: soft.info.width, height: soft.info.height, channels: soft.info.channels },
  })
    .resize(width, height, { fit: 'fill', kernel: 'cubic' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width, height, channels: info.channels as Pixels['channels'] };
}

/** Pixels of one colour. */
export async function coloured(colour: string, { width, height }: Dimensions): Promise<Pixels> {
  const data = await sharp({ create: { width, height, channels: 3, background: colour } })
    .raw()
    .toBuffer();
  return { data, width, height, channels: 3 };
}
