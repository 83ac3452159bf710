import sharp, { type Sharp } from 'sharp';

/** A picture whose colour tells where one is: red grows to the right, green downwards; blue is a slow, fixed texture. */
export function chart(width: number, height: number): Sharp {
  const data = Buffer.alloc(width * height * 3);
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += 3) {
      data[at] = (255 * x) / width;
      data[at + 1] = (255 * y) / height;
      data[at + 2] = 128 + 60 * Math.sin(x / 37) * Math.cos(y / 23);
    }
  }
  return sharp(data, { raw: { width, height, channels: 3 } });
}

/** A picture that no encoder likes: coloured noise, the same every time. */
export function noise(width: number, height: number): Sharp {
  const data = Buffer.alloc(width * height * 3);
  let state = 12_345;
  for (let at = 0; at < data.length; at += 1) {
    state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0;
    data[at] = state >>> 24;
  }
  return sharp(data, { raw: { width, height, channels: 3 } });
}

/** Mean absolute difference of two pictures of equal dimensions, in levels of 255. */
export async function difference(a: Buffer | Sharp, b: Buffer | Sharp): Promise<number> {
  const raw = (one: Buffer | Sharp) =>
    (Buffer.isBuffer(one) ? sharp(one) : one).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const [left, right] = [await raw(a), await raw(b)];
  if (left.info.width !== right.info.width || left.info.height !== right.info.height) return Number.POSITIVE_INFINITY;
  let sum = 0;
  for (let at = 0; at < left.data.length; at += 1) sum += Math.abs((left.data[at] ?? 0) - (right.data[at] ?? 0));
  return sum / left.data.length;
}
