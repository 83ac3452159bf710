import type { Plane, Raster } from '../seeing/index.ts';
import { PlaneMemory } from './planeMemory.ts';

/** The luminance of every pixel as it is encoded, 0..255, as `luminancePlane` says it, many times as fast. */
export function luminanceOfRaster({ data, width, height, channels }: Raster): Plane {
  const room = new PlaneMemory();
  const from = room.take(Math.ceil(data.length / Float32Array.BYTES_PER_ELEMENT));
  const to = room.takePlane({ width, height });
  room.open();
  room.octets(from, data.length).set(data);
  room.planes.luminance(from, channels, width, height, to);
  return room.get(to, { width, height });
}
