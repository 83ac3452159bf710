import { type ContentArea, composeWindow, markInFrame, plainContentArea, unmetMarks } from '@inkwell/core/framing';
import {
  area,
  type Bounds,
  halfExtent,
  intersection,
  largestWindow,
  placeDimensions,
  upright,
  wholeOf,
} from '@inkwell/core/geometry';
import type { Dimensions, Mark, Window } from '@inkwell/core/model';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import sharp from 'sharp';
import { median } from './inProcess.ts';

/** The dimensions of the pictures with known subjects. */
export const original: Dimensions = { width: 1500, height: 1000 };
const places = [...shippedPlaces().values()].map((one) => one.place);

export type Spot = [left: number, top: number, width: number, height: number];
export interface Picture {
  name: string;
  keeps: Spot[];
  avoids: Spot[];
}

/** Eight pictures with known subjects: what must be in, and what should stay out. */
const pictures: readonly Picture[] = [
  { name: 'one in the middle', keeps: [[660, 380, 180, 240]], avoids: [] },
  { name: 'one far left', keeps: [[60, 300, 160, 220]], avoids: [] },
  { name: 'one low right, bin beside', keeps: [[1180, 640, 170, 230]], avoids: [[1390, 760, 90, 160]] },
  {
    name: 'two close together',
    keeps: [
      [520, 300, 150, 190],
      [760, 340, 150, 190],
    ],
    avoids: [],
  },
  {
    name: 'two far apart',
    keeps: [
      [80, 360, 150, 200],
      [1240, 380, 150, 200],
    ],
    avoids: [],
  },
  {
    name: 'five in a row',
    keeps: [190, 470, 720, 980, 1240].map((left): Spot => [left, 430, 70, 110]),
    avoids: [[1400, 730, 80, 150]],
  },
  { name: 'a mast', keeps: [[880, 80, 60, 820]], avoids: [[20, 820, 200, 150]] },
  { name: 'a wide title', keeps: [[200, 60, 1100, 150]], avoids: [] },
];

const marksOf = ({ keeps, avoids }: Picture): Mark[] => {
  const common = ([left, top, width, height]: Spot, index: number) => ({
    id: `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`,
    name: `mark ${index}`,
    shape: 'ellipse' as const,
    left,
    top,
    width,
    height,
  });
  return [
    ...keeps.map((spot, index): Mark => {
      return { ...common(spot, index), role: 'keep', priority: 'must', kind: null, look: null };
    }),
    ...avoids.map((spot, index): Mark => ({ ...common(spot, 100 + index), role: 'avoid' })),
  ];
};

/** Paints a picture: a calm ground, and spots with colour and texture where its subjects are. */
function paintSpots({ keeps, avoids }: Picture): Promise<Buffer> {
  const spot = ([left, top, width, height]: Spot, colour: string) =>
    `<ellipse cx="${left + width / 2}" cy="${top + height / 2}" rx="${width / 2}" ry="${height / 2}" fill="${colour}"/>
     <path d="M${left + width / 4},${top + height / 2}h${width / 2}M${left + width / 2},${top + height / 4}v${height / 2}" stroke="#fff" stroke-width="8"/>`;
  return sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="1500" height="1000"><rect width="1500" height="1000" fill="#9fb3bf"/><rect y="640" width="1500" height="360" fill="#c9b78d"/>${keeps.map((one) => spot(one, '#c4553a')).join('')}${avoids.map((one) => spot(one, '#4d5559')).join('')}</svg>`,
    ),
  )
    .png()
    .toBuffer();
}

/** The window of sharp's own content-aware cut. */
async function attentionWindow(picture: Buffer, bounds: Bounds, output: Dimensions): Promise<Window> {
  const { info } = await sharp(picture)
    .resize(output.width, output.height, { fit: 'cover', position: sharp.strategy.attention })
    .toBuffer({ resolveWithObject: true });
  const largest = largestWindow(bounds, output);
  const scale = largest.span / output.width;
  return {
    ...largest,
    centreX: -(info.cropOffsetLeft ?? 0) * scale + largest.span / 2,
    centreY: -(info.cropOffsetTop ?? 0) * scale + (largest.span * output.height) / output.width / 2,
  };
}

/** The part of all marks of a role that a window shows, 0..1, by area. */
function shareShown(window: Window, output: Dimensions, marks: Mark[], role: Mark['role']): number | null {
  const wanted = marks.filter((mark) => mark.role === role).map((mark) => markInFrame(mark, window, output));
  const whole = wanted.reduce((sum, rect) => sum + area(rect), 0);
  const frame = { left: 0, top: 0, ...output };
  return whole === 0 ? null : wanted.reduce((sum, rect) => sum + area(intersection(rect, frame)), 0) / whole;
}

const keepsAll = (window: Window, contentArea: ContentArea, marks: Mark[]) =>
  unmetMarks(
    window,
    contentArea,
    marks.filter((mark) => mark.role === 'keep'),
  ).length === 0;

/** True where some window of a fine grid keeps all marks. */
function isPossible(bounds: Bounds, contentArea: ContentArea, output: Dimensions, marks: Mark[]): boolean {
  const half = halfExtent(0, output);
  const largest = largestWindow(bounds, output);
  const steps = 24;
  for (let size = 0; size < 30; size += 1) {
    const span = largest.span * 0.94 ** size;
    for (let x = 0; x <= steps; x += 1) {
      for (let y = 0; y <= steps; y += 1) {
        const centreX = half.x * span + ((bounds.box.width - 2 * half.x * span) * x) / steps;
        const centreY = half.y * span + ((bounds.box.height - 2 * half.y * span) * y) / steps;
        if (keepsAll({ ...largest, span, centreX, centreY }, contentArea, marks)) return true;
      }
    }
  }
  return false;
}

export interface FramingComparison {
  frames: number;
  /** Frames in which all musts can be kept, and in how many of them they were. */
  possible: number;
  kept: Record<Way, number>;
  /** Mean share of keep area shown, and of avoid area shown. */
  keepShown: Record<Way, number>;
  avoidShown: Record<Way, number>;
}
type Way = 'composed' | 'centred' | 'attention';
const ways: Way[] = ['composed', 'centred', 'attention'];

/**
 * Composed windows against centred ones and a content-aware cut, over all places of the spec book.
 *
 * @param some pictures, with how they are painted
 * @param marksFor what they are composed from: by default what is known to be in them
 * @param size of each picture
 */
export async function compareFraming(
  some: readonly Picture[] = pictures,
  paint: (picture: Picture) => Promise<Buffer> = paintSpots,
  marksFor: (painted: Buffer) => Promise<Mark[] | null> = async () => null,
  size: Dimensions = original,
): Promise<FramingComparison> {
  const zero = () => ({ composed: 0, centred: 0, attention: 0 });
  const result: FramingComparison = { frames: 0, possible: 0, kept: zero(), keepShown: zero(), avoidShown: zero() };
  const whole = { ...size, trim: null };
  const bounds = wholeOf(whole);
  let avoiding = 0;
  for (const picture of some) {
    const marks = marksOf(picture);
    const painted = await paint(picture);
    const composedFrom = (await marksFor(painted)) ?? marks;
    for (const place of places) {
      const output = placeDimensions(place, whole);
      const contentArea = plainContentArea(place, whole);
      const windows: Record<Way, Window> = {
        composed: composeWindow(bounds, contentArea, composedFrom).window,
        centred: largestWindow(bounds, output),
        attention: await attentionWindow(painted, bounds, output),
      };
      const possible = isPossible(bounds, contentArea, output, marks);
      result.frames += 1;
      if (possible) result.possible += 1;
      const avoids = marks.some((mark) => mark.role === 'avoid');
      if (avoids) avoiding += 1;
      for (const way of ways) {
        if (possible && keepsAll(windows[way], contentArea, marks)) result.kept[way] += 1;
        result.keepShown[way] += shareShown(windows[way], output, marks, 'keep') ?? 0;
        result.avoidShown[way] += shareShown(windows[way], output, marks, 'avoid') ?? 0;
      }
    }
  }
  for (const way of ways) {
    result.keepShown[way] /= result.frames;
    result.avoidShown[way] /= avoiding;
  }
  return result;
}

/** Milliseconds to compose twelve marks into all places, and into the slowest of them: medians of 15 rounds. */
export function composeTimes(): { places: number; all: number; slowest: number } {
  const row = Array.from({ length: 9 }, (_, index): Spot => [90 + index * 150, 430 + (index % 3) * 30, 70, 90]);
  const marks = marksOf({
    name: 'twelve',
    keeps: row,
    avoids: [
      [1380, 820, 90, 120],
      [20, 20, 80, 60],
      [700, 10, 60, 60],
    ],
  });
  const whole = { ...original, trim: null };
  const rounds = Array.from({ length: 20 }, () =>
    places.map((place) => {
      const began = performance.now();
      composeWindow(wholeOf(whole), plainContentArea(place, whole), marks, upright);
      return performance.now() - began;
    }),
  ).slice(5);
  const ofPlace = (index: number) => median(rounds.map((times) => times[index] ?? 0));
  return {
    places: places.length,
    all: median(rounds.map((times) => times.reduce((sum, time) => sum + time, 0))),
    slowest: Math.max(...places.map((_, index) => ofPlace(index))),
  };
}
