import { mkdtemp } from 'node:fs/promises';
import { join } from 'node:path';
import { plainTreatment } from '@inkwell/core/finishing';
import { intersection, piecesOf, type Rect, seamsOf } from '@inkwell/core/geometry';
import { shippedStyles } from '@inkwell/core/lettering';
import { type FrameSettings, type Item, type KeepMark, keepNothing, type LetterLayer } from '@inkwell/core/model';
import { type FrameToPlan, markInFile, planWithWords, type RenderPlan, readPlan } from '@inkwell/core/planning';
import { byHand, sampleArea, sampleMark, sampleOriginal, samplePlace } from '@inkwell/core/testing';
import fc from 'fast-check';
import sharp from 'sharp';
import { expect, inject, test } from 'vitest';
import { Fonts } from '../fonts/fonts.ts';
import { renderFiles } from '../imaging/encoding/render.ts';
import { inspect } from '../imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '../imaging/intake/makeCopy.ts';
import { cutPieces } from '../imaging/stages/cutting.ts';
import type { Pixels } from '../imaging/stages/pixels.ts';
import { renderPixels } from '../imaging/stages/renderPixels.ts';
import { chart } from '../testing/pictures/pictures.ts';

const original = sampleOriginal({ width: 900, height: 640 });
const folder = await mkdtemp(join(inject('dataFolder'), 'lettered-'));
const file = join(folder, 'chart.png');
await chart(original.width, original.height).png().toFile(file);
const copy = await makeWorkingCopy(await inspect(file), join(folder, 'copy'));
const book = new Fonts(folder).shipped;

const id = (number: number) => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`;
const common = { originalIds: null, notOn: [], notOnPlaces: [] };
const wishes = ['wherever it is calm', 'top left', 'bottom', 'beside the subject', 'under the words before'] as const;
const onPieces = fc.constantFrom('first' as const, 'last' as const, 'each' as const, 'across' as const);
const wanted = fc.integer({ min: 4, max: 40 }).map((percent) => percent / 100);
const words = fc.record({
  ...Object.fromEntries(Object.entries(common).map(([name, value]) => [name, fc.constant(value)])),
  kind: fc.constant('words'),
  role: fc.constant('title'),
  name: fc.constant('Words'),
  text: fc.constantFrom('Kites', 'Autumn kite festival', 'Drachen\nfest', 'مهرجان الطائرات', '秋の凧まつり'),
  short: fc.constantFrom('', 'Kites'),
  style: fc.constantFrom(...shippedStyles).map(({ style }) => style),
  wish: fc.constantFrom(...wishes),
  onPieces,
  wanted,
});
const shape = fc.record({
  ...Object.fromEntries(Object.entries(common).map(([name, value]) => [name, fc.constant(value)])),
  kind: fc.constant('shape'),
  name: fc.constant('Shape'),
  form: fc.constantFrom('plate', 'bar', 'rule', 'disc', 'arrow'),
  colour: fc.constant('#c0392b'),
  opacity: fc.constantFrom(1, 0.5),
  wish: fc.constantFrom(...wishes.slice(0, 4)),
  onPieces,
  wanted,
});
const lettering = fc
  .array(fc.oneof(words, words, shape), { minLength: 1, maxLength: 3 })
  .map((items) => items.map((item, at) => ({ ...item, id: id(at + 1) }) as Item));
const places = fc.constantFrom<[FrameToPlan['place'], Partial<FrameSettings>]>(
  [samplePlace({ width: 320, height: 250, covered: [sampleArea(0, 200, 320, 50)], shownWidths: [160] }), {}],
  [samplePlace({ width: 180, height: 320, shownPart: sampleArea(0, 40, 180, 240) }), {}],
  [samplePlace({ width: 240, height: 240, shape: 'circle' }), { cutOut: true }],
  [
    samplePlace({ width: 240, height: 240, shape: 'rounded' }),
    { ring: { width: 8, colour: '#205060', side: 'outside' } },
  ],
  [
    samplePlace({ width: 160, height: 200, group: { kind: 'panels', min: 2, max: 10 } }),
    { grid: { columns: 3, rows: 1 } },
  ],
  [
    samplePlace({
      width: 200,
      height: 150,
      group: { kind: 'block', columns: 2, rows: 2, gap: 0.05, postingOrder: [0, 1, 2, 3] },
    }),
    { grid: { columns: 2, rows: 2 }, bridged: true },
  ],
);
const frames = fc.record({
  at: places,
  items: lettering,
  turn: fc.constantFrom(0, 90, 8),
  mirror: fc.boolean(),
  stretch: fc.constantFrom(1, 1.3),
  composed: fc.boolean(),
  backing: fc.constantFrom<FrameSettings['backing']>(
    null,
    { kind: 'colour', colour: '#123456' },
    { kind: 'mirrored edges' },
  ),
  format: fc.constantFrom('jpeg' as const, 'png' as const),
  marks: fc.array(
    fc
      .record({
        left: fc.integer({ min: 200, max: 500 }),
        top: fc.integer({ min: 150, max: 400 }),
        width: fc.integer({ min: 30, max: 160 }),
      })
      .map(({ left, top, width }) => sampleMark({ left, top, width, height: width })),
    { maxLength: 2 },
  ),
});
type AnyFrame = typeof frames extends fc.Arbitrary<infer Value> ? Value : never;

function planned({ at: [place, own], items, turn, mirror, marks, ...values }: AnyFrame) {
  const settings = byHand({ centreX: 450, centreY: 320, span: 380, turn, mirror }, { ...values, ...own });
  const marked = { ...original, marks: marks.map((mark, number): KeepMark => ({ ...mark, id: id(100 + number) })) };
  const plan = (some: Item[]) =>
    planWithWords({
      original: marked,
      place,
      settings,
      treatment: plainTreatment,
      keeping: keepNothing,
      lettering: { items: some, book, originalId: original.id, placeId: 'made/place', ground: null },
    });
  return { ...plan(items), place, marked };
}

/** Everything that a layer may touch. */
function reachOf(layer: LetterLayer): Rect {
  if (layer.kind !== 'outline') return layer.within;
  const numbers = (layer.path.match(/-?[\d.]+/g) ?? []).map(Number);
  const [xs, ys] = [0, 1].map((first) => numbers.filter((_, at) => at % 2 === first)) as [number[], number[]];
  const round = layer.stroke / 2 + 4 * layer.blur + 2;
  const [left, top] = [Math.min(...xs) - round, Math.min(...ys) - round];
  return { left, top, width: Math.max(...xs) + round - left, height: Math.max(...ys) + round - top };
}

/** Whether two pictures are the same outside of some rectangles. */
function sameBeside(some: Pixels, others: Pixels, rects: readonly Rect[]): boolean {
  for (let y = 0; y < some.height; y += 1) {
    for (let x = 0; x < some.width; x += 1) {
      const isIn = rects.some(
        ({ left, top, width, height }) => x + 1 > left && x < left + width && y + 1 > top && y < top + height,
      );
      if (isIn) continue;
      for (let channel = 0; channel < 3; channel += 1) {
        const [a, b] = [some, others].map(({ data, width, channels }) => data[(y * width + x) * channels + channel]);
        if (a !== b) return false;
      }
    }
  }
  return true;
}

const meets = (a: Rect, b: Rect) => {
  const { width, height } = intersection(a, b);
  return width > 0.01 && height > 0.01;
};

test('whatever lies over whatever frame, what holds for the frame holds on', async () => {
  let lettered = 0;
  await fc.assert(
    fc.asyncProperty(frames, async (frame) => {
      const { plan, lettered: words, place, marked } = planned(frame);
      const bare: RenderPlan = { ...plan, lettering: null };
      if (plan.lettering) lettered += 1;
      // The same plan gives the same pixels, also when it was kept.
      const [whole, again] = [
        await renderPixels(plan, copy),
        await renderPixels(readPlan(JSON.parse(JSON.stringify(plan))) as RenderPlan, copy),
      ];
      expect(whole.data.equals(again.data)).toBe(true);
      // A file has exactly its place's dimensions, and beside what is laid over it the picture is what it was.
      expect(whole).toMatchObject(plan.output);
      const plain = await renderPixels(bare, copy);
      expect(sameBeside(whole, plain, (plan.lettering?.layers ?? []).map(reachOf))).toBe(true);
      // Nothing is laid round a picture that is cut out as a shape: it stays clear, or as it was.
      if (plan.shape?.cutOut && whole.channels === 4) expect(whole.data[3]).toBe(0);
      else if (plan.shape?.cutOut) expect(whole.data.subarray(0, 3)).toEqual(plain.data.subarray(0, 3));
      // Its pieces are of equal dimensions, and cutPieces makes sure that they are the whole, bit for bit.
      const { pieces, weight } = await renderFiles(plan, copy);
      if (plan.grid) expect(await cutPieces(whole, plan.grid)).toHaveLength(pieces.length);
      for (const { data } of pieces) {
        const { width, height } = await sharp(data).metadata();
        expect([width, height]).toEqual([place.width, place.height]);
        if (weight.fits) expect(data.length).toBeLessThanOrEqual(plan.encoding.budgetBytes);
      }
      // What was laid out covers no keep mark, nothing that is covered, and meets no seam with a letter.
      const files = plan.grid ? piecesOf(plan.grid) : [{ left: 0, top: 0, ...plan.output }];
      const covered = files.flatMap((piece) =>
        place.covered.map((area) => ({ ...area, left: area.left + piece.left, top: area.top + piece.top })),
      );
      const kept = marked.marks.map((mark) => markInFile(mark, plan));
      for (const { itemId, box } of words?.items ?? []) {
        expect([...covered, ...kept].filter((rect) => meets(rect, box))).toEqual([]);
        const isAcross = frame.items.find((item) => item.id === itemId)?.onPieces === 'across';
        const seams = plan.grid && !isAcross ? seamsOf(plan.grid) : [];
        const cut = seams.filter(({ axis, start, width }) => {
          const [from, length] = axis === 'x' ? [box.left, box.width] : [box.top, box.height];
          return from < start + width - 0.01 && from + length > start + 0.01;
        });
        expect(cut).toEqual([]);
      }
    }),
    { numRuns: 30 },
  );
  expect(lettered).toBeGreaterThan(12);
}, 240_000);
