import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { legibilityFindings, letteringFindings } from '@inkwell/core/checking';
import { plainTreatment } from '@inkwell/core/finishing';
import { shippedStyles } from '@inkwell/core/lettering';
import {
  type Finding,
  type Hands,
  type Item,
  keepNothing,
  type LetterStyle,
  type Place,
  plainSettings,
} from '@inkwell/core/model';
import { planWithWords } from '@inkwell/core/planning';
import { groundOf } from '@inkwell/core/seeing';
import { sampleOriginal } from '@inkwell/core/testing';
import { madePicture } from '@inkwell/demo/make.ts';
import { Fonts } from '@inkwell/server/fonts/fonts.ts';
import { inspect } from '@inkwell/server/imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '@inkwell/server/imaging/intake/makeCopy.ts';
import { measureLegibility } from '@inkwell/server/imaging/measuring/legibility.ts';
import { framePixels } from '@inkwell/server/imaging/stages/framePixels.ts';
import { fromPixels } from '@inkwell/server/imaging/stages/pixels.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import sharp, { type Sharp } from 'sharp';

const book = new Fonts(tmpdir()).shipped;
const size = { width: 2400, height: 1800 };
const titles = ['Autumn kite festival', 'Kites!', 'Donaudampfschifffahrt', '12'];
const [originalId, itemId] = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'];

/** Pictures on which words are hard or easy to read: light, dark, calm and busy ones. */
const grounds: Record<string, () => Sharp> = {
  light: () => flat('#f2efe8'),
  dark: () => flat('#14202b'),
  middle: () => flat('#7c7c7c'),
  'light to dark': () =>
    sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}"><defs><linearGradient id="g" x2="1" y2="1"><stop stop-color="#fff"/><stop offset="1"/></linearGradient></defs><rect width="100%" height="100%" fill="url(#g)"/></svg>`,
      ),
    ),
  stripes: () =>
    sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}"><defs><pattern id="p" width="90" height="90" patternUnits="userSpaceOnUse" patternTransform="rotate(35)"><rect width="90" height="90" fill="#eee"/><rect width="45" height="90" fill="#222"/></pattern></defs><rect width="100%" height="100%" fill="url(#p)"/></svg>`,
      ),
    ),
};
const flat = (background: string) => sharp({ create: { ...size, channels: 3, background } });

/** How many frames were made, how many of them had a finding, and in how many of those it was still there after its fix. */
export interface Legible {
  frames: number;
  doubtful: number;
  afterFix: number;
}

/**
 * A title in each of the styles that ship, on demo and made pictures, in some of the shipped places: as JPEG of quality 80, measured as
 * the program measures its files.
 *
 * @param art folder of the demo's pictures
 */
export async function legibleFrames(art: string, each: (line: string) => void = () => {}): Promise<Legible> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-legible-'));
  try {
    const pictures = new Map<string, string>();
    for (const key of ['flyers', 'panorama', 'maker', 'poster', 'snapshot'] as const) {
      const path = join(folder, `${key}.png`);
      const painted = sharp(await madePicture(key, art), { limitInputPixels: false });
      await painted
        .resize({ ...size, fit: 'inside' })
        .png()
        .toFile(path);
      pictures.set(key, path);
    }
    for (const [name, draw] of Object.entries(grounds)) {
      const path = join(folder, `${name}.png`);
      await draw().png().toFile(path);
      pictures.set(name, path);
    }
    const places = [...shippedPlaces()].filter(([, { place }]) => !place.group && place.purpose !== 'profile');
    const found: Legible = { frames: 0, doubtful: 0, afterFix: 0 };
    let next = 0;
    for (const [name, path] of pictures) {
      const frame = await opened(path, folder);
      for (const { style, name: styleName } of shippedStyles) {
        for (let time = 0; time < placesEach; time += 1) {
          const [placeId, { place }] = places[next % places.length] as (typeof places)[number];
          const text = titles[next % titles.length] ?? '';
          next += 7;
          const findings = await frame(text, style, placeId, place, {});
          found.frames += 1;
          const [finding] = findings;
          if (!finding) continue;
          found.doubtful += 1;
          const { hands = {} } = (finding.fix?.change ?? {}) as { hands?: Hands };
          const after = await frame(text, style, placeId, place, hands);
          if (after.length > 0) found.afterFix += 1;
          each(
            `${name}, ${styleName}, ${placeId}: ${finding.text} ${finding.fix?.label}: ${after[0]?.text ?? 'right'}`,
          );
        }
      }
    }
    return found;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Places that each style is tried in on each picture. */
const placesEach = 3;

/** A picture as frames are made of it. */
async function opened(path: string, folder: string) {
  const looked = await inspect(path);
  const copy = await makeWorkingCopy(looked, await mkdtemp(join(folder, 'copy-')));
  const { data, info } = await sharp(path)
    .resize(896, 896, { fit: 'inside' })
    .flatten({ background: 'white' })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const ground = groundOf({ data, width: info.width, height: info.height, channels: 3 });
  const original = { ...sampleOriginal({ width: looked.width, height: looked.height }), marks: [] };
  const frame = async (
    text: string,
    style: LetterStyle,
    placeId: string,
    place: Place,
    hands: Hands,
  ): Promise<Finding[]> => {
    const window = { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false };
    const settings = { ...plainSettings, window, hands, composed: true, format: place.formats[0] ?? ('jpeg' as const) };
    const item: Item = {
      kind: 'words',
      id: itemId,
      name: 'Title',
      role: 'title',
      text,
      short: '',
      style,
      originalIds: null,
      notOn: [],
      notOnPlaces: [],
      onPieces: 'first',
      wish: 'wherever it is calm',
      wanted: 0.15,
    };
    const lettering = { items: [item], book, originalId, placeId, ground };
    const asked = { original, place, settings, treatment: plainTreatment, keeping: keepNothing, lettering };
    const { plan, lettered } = planWithWords(asked);
    const { whole } = await framePixels(plan, copy);
    const file = await fromPixels(whole).flatten().jpeg({ quality: 80 }).toBuffer();
    const legibility = await measureLegibility(plan, [file], place.shownWidths);
    const toCheck = { lettered, legibility, place, settings };
    return [...letteringFindings(toCheck), ...legibilityFindings(toCheck)];
  };
  return frame;
}
