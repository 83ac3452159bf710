import { inPlaneMemory, type Raster, rowsOf } from '../planes/index.ts';
import { worstSimilarity } from './similarity/similarity.ts';

/** More pixels than this are measured in bands. */
const bandPixels = 6_000_000;

/**
 * What is left of a picture's colours at the spot where most is lost when they are kept half as fine each way (4:2:0),
 * 0..100: structural similarity of the two colour differences. Red lettering on blue comes out low; a photograph high.
 */
export function chromaKept(raster: Raster): number {
  const { width, height, channels } = raster;
  if (channels < 3) return 100;
  const rows = Math.max(64, Math.floor(bandPixels / width));
  let least = 100;
  for (let top = 0; top < height; top += rows) {
    least = Math.min(least, bandKept(rowsOf(raster, top, Math.min(height, top + rows))));
  }
  return Math.round(Math.max(0, least) * 100) / 100;
}

function bandKept(raster: Raster): number {
  const { data, width, height, channels } = raster;
  const size = { width, height };
  return inPlaneMemory((arena) => {
    const pixels = arena.reserve(Math.ceil(data.length / Float32Array.BYTES_PER_ELEMENT));
    const fine = [arena.reservePlane(size), arena.reservePlane(size)] as const;
    const coarse = [arena.reservePlane(size), arena.reservePlane(size)] as const;
    const measure = worstSimilarity(arena, size, [
      [fine[0], coarse[0]],
      [fine[1], coarse[1]],
    ]);
    arena.commit();
    arena.octets(pixels, data.length).set(data);
    arena.kernels.lightAndColours(pixels, channels, width, height, 0, fine[0], fine[1]);
    for (const at of [0, 1] as const) arena.kernels.coarsen(fine[at], width, height, coarse[at]);
    return measure();
  });
}
