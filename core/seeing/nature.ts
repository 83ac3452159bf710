import type { PictureNature } from '../model/index.ts';
import { coloursOf, type Raster } from '../planes/index.ts';
import { chromaKept } from './chroma.ts';

/** A step of this many levels between two neighbours is an edge. */
const edge = 40;
/** Neighbours that differ by no more than this, and do differ, are noise or the slow change of light. */
const grain = 8;
/** From this share of pixels like their neighbours on, a picture is drawn in flat colours; below the other, it is a photograph. */
const flatFrom = 0.5;
const photoBelow = 0.2;
const round = (value: number, to: number) => Math.round(value * to) / to;

/**
 * What a picture is, by its pixels: a photograph has a little noise nearly everywhere, and thousands of colours; flat
 * artwork has neighbours that are exactly alike, hard edges and few colours; a mixed one has both.
 */
export function natureOf(raster: Raster): PictureNature {
  const { data, width, height, channels } = raster;
  const colours = coloursOf(raster);
  const seen = new Uint8Array(2 ** 15);
  let [flat, edges, noise, noisy, pixels, different] = [0, 0, 0, 0, 0, 0];
  // Every eighth row says enough.
  for (let y = 1; y < height; y += 8) {
    for (let x = 1; x < width; x += 1) {
      const at = (y * width + x) * channels;
      let furthest = 0;
      let colour = 0;
      for (let channel = 0; channel < colours; channel += 1) {
        const value = data[at + channel] as number;
        const left = Math.abs(value - (data[at - channels + channel] as number));
        const above = Math.abs(value - (data[at - width * channels + channel] as number));
        furthest = Math.max(furthest, left, above);
        colour = (colour << 5) | (value >> 3);
      }
      pixels += 1;
      if (seen[colour] === 0) {
        seen[colour] = 1;
        different += 1;
      }
      if (furthest === 0) flat += 1;
      else if (furthest >= edge) edges += 1;
      else if (furthest <= grain) {
        noise += furthest;
        noisy += 1;
      }
    }
  }
  const share = (count: number) => (pixels === 0 ? 0 : round(count / pixels, 1000));
  const flatness = share(flat);
  return {
    kind: flatness >= flatFrom ? 'flat artwork' : flatness < photoBelow ? 'photo' : 'mixed',
    colours: different,
    flat: flatness,
    edges: share(edges),
    noise: noisy === 0 ? 0 : round(noise / noisy, 100),
    chromaKept: chromaKept(raster),
  };
}
