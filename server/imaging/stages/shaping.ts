import type { Dimensions } from '@inkwell/core/model';
import { planContentArea, type RenderPlan, ringPath, shapePath } from '@inkwell/core/planning';
import sharp from 'sharp';
import { fromPixels, type Pixels, toPixels } from './pixels.ts';

/** Lays the ring round or over a picture that fills the plan's content area, and cuts the file out as its shape. */
export async function shaped(picture: Pixels, plan: RenderPlan): Promise<Pixels> {
  const { shape, output } = plan;
  if (!shape) return picture;
  const { margins } = planContentArea(plan);
  const { ring } = shape;
  const framed =
    margins.left > 0 && ring
      ? await toPixels(
          fromPixels(picture)
            .toColourspace('srgb')
            .extend({ ...margins, background: ring.colour }),
        )
      : picture;
  const ringed = ring ? await painted(framed, svg(output, ringPath(shape, ring.width, output), ring.colour)) : framed;
  return shape.cutOut ? cut(ringed, svg(output, shapePath(shape, 0, output), 'white')) : ringed;
}

const svg = ({ width, height }: Dimensions, path: string, colour: string): Buffer =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><path fill-rule="evenodd" fill="${colour}" d="${path}"/></svg>`,
  );

async function painted(under: Pixels, over: Buffer): Promise<Pixels> {
  const opaque = under.channels % 2 === 1;
  const done = fromPixels(under).composite([{ input: over }]);
  return toPixels(opaque ? fromPixels(await toPixels(done)).removeAlpha() : done);
}

async function cut(picture: Pixels, mask: Buffer): Promise<Pixels> {
  const { width, height } = picture;
  const alpha = await sharp(mask).ensureAlpha().extractChannel('alpha').raw().toBuffer();
  const channel = { raw: { width, height, channels: 1 as const } };
  if (picture.channels % 2 === 1) return toPixels(fromPixels(picture).joinChannel(alpha, channel));
  return toPixels(fromPixels(picture).composite([{ input: mask, blend: 'dest-in' }]));
}
