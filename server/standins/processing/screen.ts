import { fileURLToPath } from 'node:url';
import { type Area, type Place, standInNotice } from '@inkwell/core/model';
import { createCanvas, GlobalFonts } from '@napi-rs/canvas';
import sharp, { type Sharp } from 'sharp';
import { pieceWidth } from './processing.ts';

/** Page, controls and notice of a stand-in's screens: greys of no network. */
const paper = '#e9e9e6';
const controls = '#4a4a4a';
const controlsOpacity = 0.55;
const noticeHeight = 18;
/** Rounded corners, as a share of the shorter side. */
const rounding = 0.06;

export interface ShownPiece {
  data: Buffer;
  width: number;
  height: number;
}

/**
 * A post as its audience sees it at one width: pieces with their gaps, through the place's mask, under the network's controls, and
 * without what is folded away. A PNG that says below that all of it is simulated.
 *
 * @param pieces in reading order
 */
export async function postScreen(
  place: Place,
  pieces: readonly ShownPiece[],
  shownWidth: number,
  columns: number,
): Promise<Buffer> {
  const across = Math.min(columns, pieces.length);
  const width = pieceWidth(place, shownWidth, across);
  const height = Math.max(...pieces.map((one) => one.height));
  const gap = place.group?.kind === 'block' || place.group?.kind === 'quilt' ? Math.round(place.group.gap * width) : 0;
  const rows = Math.ceil(pieces.length / across);
  const canvas = { width: across * width + (across - 1) * gap, height: rows * height + (rows - 1) * gap };
  const scale = width / place.width;
  const masked = await Promise.all(pieces.map((one) => masking(one, place)));
  const laid = masked.map((input, at) => ({
    input,
    left: (at % across) * (width + gap),
    top: Math.floor(at / across) * (height + gap),
  }));
  const over =
    pieces.length === 1
      ? place.covered.map((area) => ({ input: controlOf(area, scale, canvas), left: 0, top: 0 }))
      : [];
  const folded =
    place.shownPart && pieces.length === 1 ? foldedHeight(place.shownPart, place, canvas.height, scale) : canvas.height;
  const screen = await sharp({ create: { ...canvas, channels: 3, background: paper } })
    .composite([...laid, ...over])
    .png()
    .toBuffer();
  return withNotice(sharp(screen).extract({ left: 0, top: 0, width: canvas.width, height: folded }));
}

/**
 * The profile page: published posts, the newest first, each cut to the page's tiles from the middle.
 *
 * @param ratio of a tile, width to height
 */
export async function profileScreen(
  newestFirst: readonly Buffer[],
  { columns, tileWidth, gap, ratio }: { columns: number; tileWidth: number; gap: number; ratio: number },
): Promise<Buffer> {
  const height = Math.round(tileWidth / ratio);
  const space = Math.round(gap * tileWidth);
  const rows = Math.max(1, Math.ceil(newestFirst.length / columns));
  const canvas = { width: columns * tileWidth + (columns - 1) * space, height: rows * height + (rows - 1) * space };
  const tiles = await Promise.all(
    newestFirst.map(async (data, at) => ({
      input: await sharp(data).resize(tileWidth, height, { fit: 'cover', position: 'centre' }).png().toBuffer(),
      left: (at % columns) * (tileWidth + space),
      top: Math.floor(at / columns) * (height + space),
    })),
  );
  const page = await sharp({ create: { ...canvas, channels: 3, background: paper } })
    .composite(tiles)
    .png()
    .toBuffer();
  return withNotice(sharp(page));
}

/** A piece as the place's mask leaves it. */
async function masking({ data, width, height }: ShownPiece, { shape, group }: Place): Promise<Buffer> {
  if (shape === 'rectangle' && !group) return sharp(data).png().toBuffer();
  const radius = shape === 'rounded' ? rounding * Math.min(width, height) : 0;
  const form =
    shape === 'circle'
      ? `<ellipse cx="${width / 2}" cy="${height / 2}" rx="${width / 2}" ry="${height / 2}"/>`
      : `<rect width="${width}" height="${height}" rx="${radius}"/>`;
  const mask = Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${form}</svg>`);
  return sharp(data)
    .ensureAlpha()
    .composite([{ input: mask, blend: 'dest-in' }])
    .png()
    .toBuffer();
}

function controlOf(
  { left, top, width, height, shape }: Area,
  scale: number,
  canvas: { width: number; height: number },
): Buffer {
  const [x, y, w, h] = [left, top, width, height].map((side) => side * scale) as [number, number, number, number];
  const form =
    shape === 'circle'
      ? `<ellipse cx="${x + w / 2}" cy="${y + h / 2}" rx="${w / 2}" ry="${h / 2}"/>`
      : `<rect x="${x}" y="${y}" width="${w}" height="${h}"/>`;
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${canvas.width}" height="${canvas.height}"><g fill="${controls}" fill-opacity="${controlsOpacity}">${form}</g></svg>`,
  );
}

/** Where a place is folded: below the part that is always shown, where that begins at the top and is as wide as the place. */
function foldedHeight(shown: Area, { width }: Place, full: number, scale: number): number {
  const isFold = shown.left === 0 && shown.top === 0 && shown.width === width;
  return isFold ? Math.min(full, Math.max(1, Math.round(shown.height * scale))) : full;
}

const notices = { font: '10px Notice', colour: '#333333', left: 4, baseline: 13, wide: 440 } as const;
// Whatever fonts a machine has, or none.
GlobalFonts.registerFromPath(
  fileURLToPath(import.meta.resolve('@expo-google-fonts/noto-sans/400Regular/NotoSans_400Regular.ttf')),
  'Notice',
);

/** A line below a picture that says that all of it is simulated. */
async function withNotice(picture: Sharp): Promise<Buffer> {
  const { data, info } = await picture.png().toBuffer({ resolveWithObject: true });
  const canvas = createCanvas(info.width, noticeHeight);
  const pen = canvas.getContext('2d');
  pen.font = notices.font;
  pen.fillStyle = notices.colour;
  pen.fillText(info.width < notices.wide ? 'Simulated' : standInNotice, notices.left, notices.baseline);
  return sharp(data)
    .extend({ bottom: noticeHeight, background: '#ffffff' })
    .composite([{ input: canvas.toBuffer('image/png'), left: 0, top: info.height }])
    .png()
    .toBuffer();
}
