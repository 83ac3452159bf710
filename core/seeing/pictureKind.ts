import type { PictureKind } from '../model/index.ts';
import { luminanceOf, type Raster } from '../planes/index.ts';
import { natureOf } from './nature.ts';

/** Paper is at least as light as this, and its colour so far from grey at most, in levels. */
const paper = { light: 150, colour: 42 };
/** A scan is paper over this share of its area, within so many levels of the paper's own. */
const leastShare = 0.45;
const around = 26;

/** What kind of picture it is: what lies on paper is a scan, unless it is drawn in flat colours, without the grain of any paper. */
export function pictureKindOf(picture: Raster): PictureKind {
  const { kind } = natureOf(picture);
  return kind !== 'flat artwork' && isOnPaper(picture) ? 'scan' : kind;
}

/**
 * Whether a picture is a scan or a photograph of paper: most of it has about one light level of little colour, and ink on it is
 * darker.
 */
export function isOnPaper({ data, width, height, channels }: Raster): boolean {
  if (channels < 3)
    return isMostlyPaper(Uint8Array.from({ length: width * height }, (_, at) => data[at * channels] ?? 0));
  const levels = new Uint8Array(width * height);
  for (let pixel = 0, at = 0; pixel < levels.length; pixel += 1, at += channels) {
    const [red, green, blue] = [data[at] as number, data[at + 1] as number, data[at + 2] as number];
    const isPale = Math.max(red, green, blue) - Math.min(red, green, blue) <= paper.colour;
    // What has more colour is no paper, whatever its light.
    levels[pixel] = isPale ? luminanceOf.red * red + luminanceOf.green * green + luminanceOf.blue * blue : 0;
  }
  return isMostlyPaper(levels);
}

function isMostlyPaper(levels: Uint8Array): boolean {
  const counts = new Uint32Array(256);
  for (const level of levels) counts[level] = (counts[level] as number) + 1;
  let most = paper.light;
  for (let level = paper.light; level < 256; level += 1) {
    if ((counts[level] as number) > (counts[most] as number)) most = level;
  }
  let near = 0;
  for (let level = most - around; level <= Math.min(255, most + around); level += 1) near += counts[level] as number;
  return near >= leastShare * levels.length;
}
