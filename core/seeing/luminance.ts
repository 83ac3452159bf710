import { PlaneMemory } from './planeMemory.ts';
import type { Plane, Raster } from './raster.ts';

/** The luminance of every pixel as it is encoded, 0..255: what the eye sees as evenly spaced, unlike light itself. */
export function luminancePlane({ data, width, height, channels }: Raster): Plane {
  const room = new PlaneMemory();
  const from = room.take(Math.ceil(data.length / Float32Array.BYTES_PER_ELEMENT));
  const to = room.takePlane({ width, height });
  room.open();
  room.octets(from, data.length).set(data);
  room.planes.luminance(from, channels, width, height, to);
  return room.get(to, { width, height });
}
