import { execFile } from 'node:child_process';
import { mkdir, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Analysis, Mark } from '@inkwell/core/model';
import { asComposed } from '@inkwell/core/proposing';
import { sampleOriginal } from '@inkwell/core/testing';
import { lookAtPixels } from '@inkwell/server/imaging/analysing/analyse.ts';
import { toPixels } from '@inkwell/server/imaging/stages/pixels.ts';
import sharp from 'sharp';
import { compareFraming, type FramingComparison, original, type Picture, type Spot } from '../framing.ts';
import { makePoster, type Poster } from './posters.ts';

const run = promisify(execFile);

/** Photographs of a free licence, and where in them their subject is, in shares: they come with Debian's python3-skimage. */
const photographs = {
  person: { file: 'astronaut.png', part: [0.1, 0, 0.8, 1] },
  cat: { file: 'chelsea.png', part: [0.12, 0, 0.76, 1] },
  cup: { file: 'coffee.png', part: [0.05, 0.02, 0.8, 0.96] },
  motorcycle: { file: 'motorcycle_left.png', part: [0.08, 0.26, 0.84, 0.72] },
} as const;
type Subject = keyof typeof photographs;

interface Pasted extends Picture {
  subjects: Subject[];
}

/** Eight pictures into which subjects are pasted: their spots have the proportions of their photographs. */
const pictures: Pasted[] = [
  { name: 'a person in the middle', subjects: ['person'], keeps: [[600, 320, 320, 400]], avoids: [] },
  { name: 'a person far left', subjects: ['person'], keeps: [[60, 300, 296, 370]], avoids: [] },
  { name: 'a cat low right', subjects: ['cat'], keeps: [[1040, 600, 400, 340]], avoids: [] },
  { name: 'a cup far right', subjects: ['cup'], keeps: [[1110, 320, 360, 288]], avoids: [] },
  { name: 'a motorcycle left', subjects: ['motorcycle'], keeps: [[70, 420, 560, 324]], avoids: [] },
  {
    name: 'two people',
    subjects: ['person', 'person'],
    keeps: [
      [420, 300, 288, 360],
      [800, 330, 288, 360],
    ],
    avoids: [],
  },
  {
    name: 'a person and a cat apart',
    subjects: ['person', 'cat'],
    keeps: [
      [90, 300, 288, 360],
      [1050, 480, 360, 306],
    ],
    avoids: [],
  },
  { name: 'a person high right', subjects: ['person'], keeps: [[1100, 50, 320, 400]], avoids: [] },
];

/** Fetches the photographs into a folder; they are not kept in the project. */
async function fetched(folder: string): Promise<string> {
  const root = join(folder, 'photographs');
  await mkdir(root, { recursive: true });
  const packages = (await readdir(root)).filter((name) => name.endsWith('.deb'));
  if (packages.length === 0) await run('apt-get', ['download', 'python3-skimage'], { cwd: root });
  const [name = ''] = (await readdir(root)).filter((one) => one.endsWith('.deb'));
  await run('dpkg', ['-x', name, 'files'], { cwd: root });
  return join(root, 'files/usr/lib/python3/dist-packages/skimage/data');
}

/** Paints a picture: a calm ground with a little grain, and the subjects at their spots with soft edges. */
function paintWith(photos: string) {
  return async (picture: Picture): Promise<Buffer> => {
    const { subjects, keeps } = picture as Pasted;
    const ground = sharp({
      create: { ...original, channels: 3, background: '#9fb3bf', noise: { type: 'gaussian', mean: 170, sigma: 5 } },
    });
    const layers = await Promise.all(
      keeps.map(async ([left, top, width, height]: Spot, at) => {
        const { file, part } = photographs[subjects[at] ?? 'person'];
        const { width: wide, height: high } = await sharp(join(photos, file)).metadata();
        const [x, y, w, h] = part;
        const area = {
          left: Math.round(x * wide),
          top: Math.round(y * high),
          width: Math.round(w * wide),
          height: Math.round(h * high),
        };
        const soft = Buffer.from(
          `<svg width="${width}" height="${height}"><filter id="s"><feGaussianBlur stdDeviation="7"/></filter><rect x="10" y="10" width="${width - 20}" height="${height - 20}" rx="40" fill="#fff" filter="url(#s)"/></svg>`,
        );
        const input = await sharp(join(photos, file))
          .extract(area)
          .resize(width, height, { fit: 'fill' })
          .ensureAlpha()
          .composite([{ input: soft, blend: 'dest-in' }])
          .png()
          .toBuffer();
        return { input, left, top };
      }),
    );
    return ground.composite(layers).removeAlpha().png().toBuffer();
  };
}

/** What a picture's frames are composed from when nothing is marked. */
async function seenIn(painted: Buffer): Promise<Mark[]> {
  const { hasBody: _, ...seen } = await lookAtPixels(await toPixels(sharp(painted).toColourspace('srgb')));
  const analysis: Analysis = { ...seen, body: null };
  return asComposed(sampleOriginal(original), analysis, 'seen').marks;
}

/** Windows composed from what is seen, without any mark, against centred ones and the library's content-aware cut. */
export async function compareUnmarked(folder: string): Promise<FramingComparison> {
  return compareFraming(pictures, paintWith(await fetched(folder)), seenIn);
}

interface PosterPicture extends Picture {
  poster: Poster;
}

/** The same for made posters: whether all their lines of words are whole. */
export async function comparePosters(count = 8): Promise<FramingComparison> {
  const posters = await Promise.all(Array.from({ length: count }, (_, at) => makePoster(at + 1)));
  const posterPictures = posters.map((poster, at): PosterPicture => {
    const keeps = poster.lines.map(({ left, top, width, height }): Spot => [left, top, width, height]);
    return { name: `poster ${at + 1}`, keeps, avoids: [], poster };
  });
  const [{ width, height }] = posters as [Poster];
  return compareFraming(posterPictures, async (one) => (one as PosterPicture).poster.picture, seenIn, {
    width,
    height,
  });
}
