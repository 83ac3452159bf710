import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Rect } from '@inkwell/core/geometry';
import opentype from 'opentype.js';
import sharp from 'sharp';

/** A made poster: its picture, and where its lines of words are. */
export interface Poster {
  picture: Buffer;
  width: number;
  height: number;
  /** The smallest upright rectangle that holds the ink of each line. */
  lines: Rect[];
}

/** Random numbers from 0 up to 1, the same for the same seed (mulberry32). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

const require = createRequire(import.meta.url);
const faces = [
  'public-sans/files/public-sans-latin-600-normal.woff',
  'source-serif-4/files/source-serif-4-latin-700-normal.woff',
  'source-serif-4/files/source-serif-4-latin-400-italic.woff',
  'playfair-display/files/playfair-display-latin-500-normal.woff',
  'anton/files/anton-latin-400-normal.woff',
  'courier-prime/files/courier-prime-latin-400-normal.woff',
  'abril-fatface/files/abril-fatface-latin-400-normal.woff',
  'pacifico/files/pacifico-latin-400-normal.woff',
].map((name) => {
  const file = readFileSync(require.resolve(`@fontsource/${name}`));
  return opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer);
});

const size = { width: 1600, height: 1200 };
const vocabulary =
  'autumn kites over the dunes festival workshop saltmarsh wind line reel paper spar knot sky evening bread music children bring your own tail seven o’clock gate open free entry harbour lights sand 24 October 2026 12:30 No. 7'.split(
    ' ',
  );

type Ground = 'flat' | 'gradient' | 'grain' | 'stripes' | 'blobs';
const grounds: Ground[] = ['flat', 'gradient', 'grain', 'stripes', 'blobs'];

/** A poster of random words, fonts, sizes, colours and grounds, turned up to five degrees. */
export async function makePoster(seed: number): Promise<Poster> {
  const random = randomFrom(seed);
  const between = (low: number, high: number) => low + random() * (high - low);
  const pick = <Item>(items: readonly Item[]) => items[Math.floor(random() * items.length)] as Item;
  const { width, height } = size;
  const turn = between(-5, 5);
  const isDark = random() < 0.5;
  const colour = (lightness: number) => `hsl(${between(0, 360)} ${between(10, 80)}% ${lightness}%)`;
  const [back, ink] = isDark ? [between(8, 30), between(72, 98)] : [between(72, 96), between(5, 30)];
  const ground = pick(grounds);
  const parts = [groundOf(ground, colour, back, random)];
  const lines: Rect[] = [];
  let top = between(90, 200);
  const count = 2 + Math.floor(random() * 5);
  for (let line = 0; line < count; line += 1) {
    const face = pick(faces);
    const high = line === 0 ? between(70, 190) : between(26, 90);
    let text = Array.from({ length: 1 + Math.floor(random() * 5) }, () => pick(vocabulary)).join(' ');
    if (text.replace(/\W/g, '').length < 3) text += ' kites';
    if (random() < 0.35) text = text.toUpperCase();
    let wide = face.getAdvanceWidth(text, high);
    while (wide > width * 0.84 && text.includes(' ')) {
      text = text.slice(0, text.lastIndexOf(' '));
      wide = face.getAdvanceWidth(text, high);
    }
    if (wide > width * 0.84 || text.replace(/\W/g, '').length < 3) continue;
    const baseline = top + high;
    if (baseline > height - 120) break;
    const left = between(width * 0.08, width * 0.92 - wide);
    const path = face.getPath(text, left, baseline, high);
    parts.push(`<path d="${path.toPathData(1)}" fill="${colour(ink)}"/>`);
    lines.push(turnedBox(path.commands, turn));
    top = baseline + high * between(0.4, 1.2);
  }
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${parts[0]}<g transform="rotate(${turn} ${width / 2} ${height / 2})">${parts.slice(1).join('')}</g></svg>`;
  const drawn = await sharp(Buffer.from(svg)).removeAlpha().raw().toBuffer();
  if (ground === 'grain')
    for (let at = 0; at < drawn.length; at += 1) drawn[at] = clamp(drawn[at], (random() - 0.5) * 44);
  const picture = await sharp(drawn, { raw: { ...size, channels: 3 } })
    .png()
    .toBuffer();
  return { picture, ...size, lines };
}

const clamp = (value = 0, by = 0) => Math.min(255, Math.max(0, Math.round(value + by)));

function groundOf(kind: Ground, colour: (lightness: number) => string, lightness: number, random: () => number) {
  const { width, height } = size;
  const plain = `<rect width="${width}" height="${height}" fill="${colour(lightness)}"/>`;
  const near = () => lightness + (random() - 0.5) * 16;
  if (kind === 'gradient') {
    return `<defs><linearGradient id="g" x2="1" y2="1"><stop stop-color="${colour(lightness)}"/><stop offset="1" stop-color="${colour(near())}"/></linearGradient></defs><rect width="${width}" height="${height}" fill="url(#g)"/>`;
  }
  if (kind === 'stripes') {
    const wide = 20 + random() * 120;
    const stripes = Array.from({ length: Math.ceil(width / wide / 2) }, (_, at) => {
      return `<rect x="${at * 2 * wide}" width="${wide}" height="${height}" fill="${colour(near())}"/>`;
    });
    return plain + stripes.join('');
  }
  if (kind === 'blobs') {
    const blobs = Array.from({ length: 14 }, () => {
      return `<ellipse cx="${random() * width}" cy="${random() * height}" rx="${30 + random() * 300}" ry="${30 + random() * 200}" fill="${colour(near())}"/>`;
    });
    return plain + blobs.join('');
  }
  return plain;
}

/** The upright rectangle round an outline that was turned about the poster's middle, by the ends of its curves. */
function turnedBox(commands: opentype.PathCommand[], degrees: number): Rect {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const points = commands.flatMap((command) => ('x' in command ? [{ x: command.x, y: command.y }] : []));
  const turned = points.map(({ x, y }) => {
    const [dx, dy] = [x - size.width / 2, y - size.height / 2];
    return { x: size.width / 2 + c * dx - s * dy, y: size.height / 2 + s * dx + c * dy };
  });
  const left = Math.min(...turned.map(({ x }) => x));
  const top = Math.min(...turned.map(({ y }) => y));
  return {
    left,
    top,
    width: Math.max(...turned.map(({ x }) => x)) - left,
    height: Math.max(...turned.map(({ y }) => y)) - top,
  };
}
