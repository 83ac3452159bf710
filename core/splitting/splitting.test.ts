import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  bridgedShare,
  type Grid,
  isInside,
  originalToFrame,
  piecesOf,
  seamsOf,
  wholeDimensions,
  wholeOf,
} from '../geometry/index.ts';
import type { KeepMark } from '../model/index.ts';
import { sampleMark, samplePlace } from '../testing/index.ts';
import { chooseOffset, composeStrip, cutsAt, planStrips, uploadNumbers } from './index.ts';

const grid = fc.record({
  columns: fc.integer({ min: 1, max: 20 }),
  rows: fc.integer({ min: 1, max: 6 }),
  piece: fc.record({ width: fc.integer({ min: 8, max: 2000 }), height: fc.integer({ min: 8, max: 2000 }) }),
  bridge: fc.integer({ min: 0, max: 40 }),
});

test('pieces are equal, whole, in reading order, and tile the whole with nothing between but the bridges', () => {
  fc.assert(
    fc.property(grid, (one: Grid) => {
      const whole = wholeDimensions(one);
      const pieces = piecesOf(one);
      expect(pieces).toHaveLength(one.columns * one.rows);
      for (const [index, piece] of pieces.entries()) {
        expect(piece).toMatchObject(one.piece);
        const [column, row] = [index % one.columns, Math.floor(index / one.columns)];
        const left = column > 0 ? pieces[index - 1] : undefined;
        const above = row > 0 ? pieces[index - one.columns] : undefined;
        expect(piece.left).toBe(left ? left.left + left.width + one.bridge : 0);
        expect(piece.top).toBe(above ? above.top + above.height + one.bridge : 0);
      }
      const last = pieces.at(-1);
      expect({ width: (last?.left ?? 0) + one.piece.width, height: (last?.top ?? 0) + one.piece.height }).toEqual(
        whole,
      );
      const shown = pieces.length * one.piece.width * one.piece.height;
      expect(bridgedShare(one)).toBeCloseTo(1 - shown / (whole.width * whole.height), 9);
      for (const { axis, start, width } of seamsOf(one)) {
        const ends = pieces.map((piece) => (axis === 'x' ? piece.left + piece.width : piece.top + piece.height));
        const starts = pieces.map((piece) => (axis === 'x' ? piece.left : piece.top));
        expect(ends).toContain(start);
        expect(starts).toContain(start + width);
      }
    }),
  );
});

test('posting orders are permutations, and as the networks list them', () => {
  expect(uploadNumbers(2, 2, [0, 2, 1, 3])).toEqual([1, 3, 2, 4]);
  expect(uploadNumbers(3, 2, 'last first')).toEqual([6, 5, 4, 3, 2, 1]);
  expect(uploadNumbers(3, 2, 'down the columns')).toEqual([1, 3, 5, 2, 4, 6]);
  expect(uploadNumbers(4, 1, 'as read')).toEqual([1, 2, 3, 4]);
  expect(() => uploadNumbers(2, 2, [0, 1, 1, 3])).toThrow('name each of 0 to 3 once');
  expect(() => uploadNumbers(2, 2, [0, 1, 2, 3, 4])).toThrow('name each of 0 to 3 once');
  fc.assert(
    fc.property(grid, fc.constantFrom('as read', 'last first', 'down the columns'), ({ columns, rows }, rule) => {
      const numbers = uploadNumbers(columns, rows, rule as 'as read');
      expect([...numbers].sort((a, b) => a - b)).toEqual(numbers.map((_, index) => index + 1));
    }),
  );
});

const whole = fc.integer({ min: 0, max: 900 });
const interval = fc
  .tuple(whole, fc.integer({ min: 10, max: 160 }))
  .map(([start, length], index = 0) => ({ markId: `${start} ${index}`, start, end: start + length }));

test('an offset is the free one nearest to the wish, or the least bad, as trying all of them finds', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 6 }),
      fc.integer({ min: 60, max: 220 }),
      fc.integer({ min: 0, max: 12 }),
      fc.array(interval, { maxLength: 6 }),
      fc.integer({ min: 0, max: 200 }),
      fc.integer({ min: -50, max: 250 }),
      (panels, length, bridge, guarded, high, wish) => {
        const seams = Array.from({ length: panels - 1 }, (_, index) => ({
          start: (index + 1) * length + index * bridge,
          width: bridge,
        }));
        const room = { low: 0, high };
        const found = chooseOffset(seams, guarded, room, wish);
        expect(found.offset).toBeGreaterThanOrEqual(0);
        expect(found.offset).toBeLessThanOrEqual(high);
        const wanted = Math.min(high, Math.max(0, wish));
        const all = Array.from({ length: 2 * high + 1 }, (_, half) => half / 2);
        const free = all.filter((offset) => cutsAt(seams, guarded, offset).length === 0);
        if (free.length > 0) {
          expect(found.cuts).toEqual([]);
          const nearest = Math.min(...free.map((offset) => Math.abs(offset - wanted)));
          expect(Math.abs(found.offset - wanted)).toBeCloseTo(nearest, 6);
          return;
        }
        const depth = (offset: number) =>
          seams.reduce(
            (sum, seam) => sum + cutsAt([seam], guarded, offset).reduce((deep, cut) => deep + cut.depth, 0),
            0,
          );
        const least = Math.min(...all.map(depth));
        expect(depth(found.offset)).toBeLessThanOrEqual(least + 1e-6);
        const alike = all.filter((offset) => depth(offset) < least + 1e-6).map((offset) => Math.abs(offset - wanted));
        expect(Math.abs(found.offset - wanted)).toBeCloseTo(Math.min(...alike), 6);
        expect(found.cuts).toEqual(cutsAt(seams, guarded, found.offset));
      },
    ),
  );
});

const keep = (left: number, width: number, values: Partial<KeepMark> = {}) =>
  sampleMark({
    id: `00000000-0000-4000-8000-${String(left).padStart(12, '0')}`,
    name: `Kite at ${left}`,
    left,
    top: 900,
    width,
    height: 400,
    ...values,
  });
const panorama = { width: 12_000, height: 3000, trim: null };
const five: Grid = { columns: 5, rows: 1, piece: { width: 1080, height: 1350 }, bridge: 0 };

test('the seams of a panorama’s strip go round its kites, and round faces with room', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 11_400 }), { minLength: 1, maxLength: 4 }),
      fc.boolean(),
      (lefts, faces) => {
        const marks = [...new Set(lefts)].map((left) => keep(left, 300, faces ? { kind: 'face' } : {}));
        const { window, cuts } = composeStrip(wholeOf(panorama), five, marks);
        const output = wholeDimensions(five);
        expect(isInside(window, { left: 0, top: 0, ...panorama }, output)).toBe(true);
        for (const mark of marks) {
          const from = originalToFrame(window, output, { x: mark.left, y: 0 }).x;
          const to = originalToFrame(window, output, { x: mark.left + mark.width, y: 0 }).x;
          const room = faces ? (to - from) / 4 : 0;
          const met = seamsOf(five).some(({ start }) => start > from - room + 0.5 && start < to + room - 0.5);
          expect(met).toBe(cuts.some((cut) => cut.markId === mark.id));
        }
      },
    ),
  );
});

test('a strip stays where it was put when its seams are free, and says what it must cut', () => {
  const wish = { centreX: 6400, centreY: 1500, span: 11_000, turn: 0, mirror: false };
  expect(composeStrip(wholeOf(panorama), five, [], wish).window).toEqual(wish);
  const wall = keep(100, 11_800, { name: 'The dyke' });
  const all = composeStrip(wholeOf(panorama), five, [wall]);
  expect(all.cuts).toMatchObject([{ name: 'The dyke', axis: 'x' }]);
  // Giving up some of the picture frees it no more, so that none is; a kite on a seam is freed by as little as will do.
  expect(all.window.span).toBe(12_000);
  const tightened = composeStrip(wholeOf(panorama), five, [keep(2250, 300)]);
  expect(tightened).toMatchObject({ cuts: [], outside: 0, window: { span: 0.97 * 12_000 } });
  // What lies at both ends of the picture would be lost by it: a seam through one is less.
  const held = composeStrip(wholeOf(panorama), five, [keep(2250, 300), keep(0, 200), keep(11_800, 200)]);
  expect(held).toMatchObject({ outside: 0, window: { span: 12_000 } });
  expect(held.cuts).toHaveLength(1);
});

test('counts are ranked by what they lose; a tall or a small picture hears what would work instead', () => {
  const panels = { kind: 'panels' as const, min: 2, max: 10 };
  const portrait = samplePlace({ name: 'Portrait panels', width: 1080, height: 1350, group: panels });
  const square = samplePlace({ name: 'Square panels', width: 1080, height: 1080, group: panels });
  const { proposals, problem } = planStrips(panorama, [portrait, square], []);
  expect(problem).toBeNull();
  expect(proposals[0]).toMatchObject({ panels: 5, place: { name: 'Portrait panels' }, against: [] });
  expect(proposals[0]?.lost).toBeCloseTo(0, 6);
  expect(proposals).toHaveLength(18);
  expect(planStrips({ width: 3000, height: 5000, trim: null }, [portrait], []).problem).toContain(
    'taller than it is wide: a strip of 2 would show only 38 %',
  );
  const square3000 = { width: 3000, height: 3000, trim: null };
  expect(planStrips(square3000, [portrait], []).problem).toBeNull();
  const six = { ...portrait, group: { ...panels, min: 6 } };
  expect(planStrips(square3000, [six], []).problem).toContain('Even 6 panels show only 21 % of this picture');
  expect(planStrips(panorama, [samplePlace()], [])).toEqual({
    proposals: [],
    problem: 'This network takes no panels side by side.',
  });
  const small = planStrips({ width: 1200, height: 600, trim: null }, [portrait], []);
  expect(small.problem).toContain('too few pixels for panels: even the best way enlarges it 2.25 times');
  expect(small.proposals.at(0)?.against.join(' ')).toContain('Enlarged');
});

test('a proposal says what is lost, and the order weighs that against enlargement, seams through marks and marks left out', () => {
  const panels = { kind: 'panels' as const, min: 2, max: 10 };
  const place = samplePlace({ width: 1080, height: 1350, group: panels });
  for (const lefts of [[], [100], [100, 11_500], [100, 6000, 11_500], [2500, 4900, 7300]]) {
    const marks = lefts.map((left) => keep(left, 300));
    const { proposals } = planStrips(panorama, [place], marks);
    const costs = proposals.map(({ window, panels: count, lost, enlarged, outside, cuts, against }) => {
      const shown = (window.span * window.span * 1350) / (1080 * count);
      expect(lost).toBeCloseTo(1 - shown / (12_000 * 3000), 9);
      expect(enlarged).toBeCloseTo((1080 * count) / window.span, 9);
      const words = against.join(' ');
      expect(words.includes(`${Math.round(lost * 100)} % of the picture is not shown.`)).toBe(lost > 0.02);
      expect(words.includes('Enlarged')).toBe(enlarged > 1.0005);
      expect(words.includes('One mark is not whole in it.')).toBe(outside === 1);
      expect(words.includes(`${outside} marks are not whole in it.`)).toBe(outside > 1);
      return lost + Math.max(0, enlarged - 1) / 2 + (cuts.length + 2 * outside) / 4;
    });
    expect(costs).toEqual([...costs].sort((a, b) => a - b));
  }
  const two = { ...place, group: { ...panels, max: 2 } };
  const against = (lefts: number[]) =>
    planStrips(
      panorama,
      [two],
      lefts.map((left) => keep(left, 300)),
    ).proposals[0]?.against;
  expect(against([100, 6000])).toContain('One mark is not whole in it.');
  expect(against([100, 11_500])).toContain('2 marks are not whole in it.');
});

test('twenty panels of a panorama of 30,000 pixels are as exact as two', () => {
  const twenty: Grid = { columns: 20, rows: 1, piece: { width: 1080, height: 1350 }, bridge: 0 };
  const wide = { width: 30_000, height: 2400 };
  const { window } = composeStrip(wholeOf(wide), twenty, []);
  const output = wholeDimensions(twenty);
  expect(output).toEqual({ width: 21_600, height: 1350 });
  expect(window.span).toBe(30_000);
  for (const [index, { left }] of piecesOf(twenty).entries()) {
    const at = window.centreX - window.span / 2 + (left * window.span) / output.width;
    expect(at).toBeCloseTo(index * 1500, 6);
  }
});
