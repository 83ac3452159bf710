import type { Plane, Raster } from '../planes/index.ts';
import { inPlaneMemory } from '../planes/index.ts';

/** So many pixels are handed over at once: memory that was asked for is never given back. */
const handedOver = 1_000_000;

/** The luminance of every pixel as it is encoded, 0..255: what the eye sees as evenly spaced, unlike light itself. */
export function luminancePlane({ data, width, height, channels }: Raster): Plane {
  const plane = new Float32Array(width * height);
  const rows = Math.max(1, Math.floor(handedOver / width));
  for (let top = 0; top < height; top += rows) {
    const part = { width, height: Math.min(rows, height - top) };
    const pixels = data.subarray(top * width * channels, (top + part.height) * width * channels);
    inPlaneMemory((arena) => {
      const from = arena.reserve(Math.ceil(pixels.length / Float32Array.BYTES_PER_ELEMENT));
      const to = arena.reservePlane(part);
      arena.commit();
      arena.octets(from, pixels.length).set(pixels);
      arena.kernels.luminance(from, channels, width, part.height, to);
      plane.set(arena.get(to, part).data, top * width);
    });
  }
  return { data: plane, width, height };
}
