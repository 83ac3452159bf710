import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  type Grid,
  isInside,
  largestWindow,
  originalToFrame,
  type Pose,
  seamsOf,
  upright,
  wholeDimensions,
  wholeOf,
} from '../geometry/index.ts';
import type { KeepMark, Mark, Window } from '../model/index.ts';
import { sampleMark } from '../testing/index.ts';
import { composeStrip } from './index.ts';

/** A mark of the picture, as a rectangle. */
const markOf = (index: number, area: Pick<KeepMark, 'left' | 'top' | 'width' | 'height' | 'kind'>) =>
  sampleMark({ id: `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`, name: `Kite ${index}`, ...area });

const picture = { width: 6000, height: 4000, trim: null };
const bounds = wholeOf(picture);
const axes = ['x', 'y'] as const;

const grids = fc.record({
  columns: fc.integer({ min: 1, max: 4 }),
  rows: fc.integer({ min: 1, max: 3 }),
  piece: fc.record({ width: fc.integer({ min: 200, max: 500 }), height: fc.integer({ min: 200, max: 500 }) }),
  bridge: fc.integer({ min: 0, max: 20 }),
});

const marks = fc
  .array(
    fc.record({
      kind: fc.constantFrom(null, 'face' as const),
      left: fc.integer({ min: 0, max: 5700 }),
      top: fc.integer({ min: 0, max: 3700 }),
      width: fc.integer({ min: 60, max: 300 }),
      height: fc.integer({ min: 60, max: 300 }),
    }),
    { maxLength: 4 },
  )
  .map((all) => all.map((one, index) => markOf(index, one)));

const poses = fc.constantFrom<Pose>(upright, { turn: 90, mirror: false }, { turn: 180, mirror: true });

/** Along an axis of a strip: where a mark lies, what of it no seam should meet, and how deep each seam runs into that. */
function along(mark: KeepMark, axis: 'x' | 'y', window: Window, grid: Grid) {
  const output = wholeDimensions(grid);
  const ends = [
    { x: mark.left, y: mark.top },
    { x: mark.left + mark.width, y: mark.top + mark.height },
  ].map((corner) => originalToFrame(window, output, corner)[axis]);
  const [start, end] = [Math.min(...ends), Math.max(...ends)];
  const margin = mark.kind === 'face' ? (end - start) / 4 : 0;
  const depths = seamsOf(grid)
    .filter((seam) => seam.axis === axis)
    .map((seam) => Math.min(seam.start + seam.width - (start - margin), end + margin - seam.start));
  const length = axis === 'x' ? output.width : output.height;
  const missing = Math.max(-start, end - length);
  return { isWhole: missing <= 0.5, isQuiteWhole: missing <= 1e-9, depth: Math.max(0, ...depths) };
}

test('what a strip cuts and what it loses is told, to the pixel, in every pose and along both axes', () => {
  fc.assert(
    fc.property(grids, marks, poses, fc.double({ min: 0.3, max: 1, noNaN: true }), (grid, keeps, pose, share) => {
      const output = wholeDimensions(grid);
      const largest = largestWindow(bounds, output, pose);
      const wish = share > 0.9 ? undefined : { ...largest, span: largest.span * share };
      const {
        kind: _,
        look: __,
        ...everything
      } = markOf(99, { kind: null, left: 0, top: 0, width: 6000, height: 4000 });
      const avoid: Mark = { ...everything, role: 'avoid' };
      const { window, cuts, outside } = composeStrip(bounds, grid, [...keeps, avoid], wish, pose);
      expect(isInside(window, bounds.box, output)).toBe(true);
      expect(window).toMatchObject(pose);
      const expected = axes.flatMap((axis) =>
        keeps.flatMap((mark) => {
          const { depth } = along(mark, axis, window, grid);
          return depth > 0.5 ? [{ axis, markId: mark.id, name: mark.name, depth: expect.closeTo(depth, 6) }] : [];
        }),
      );
      expect(cuts.map(({ pixels: _, ...cut }) => cut)).toEqual(expected);
      for (const { pixels, depth } of cuts) expect(pixels).toBe(Math.ceil(depth));
      const lost = keeps.filter((mark) => !axes.every((axis) => along(mark, axis, window, grid).isWhole));
      expect(outside).toBe(lost.length);
    }),
    { numRuns: 150 },
  );
});

test('a strip moves as little as frees every mark, along each axis by itself, as trying all places finds', () => {
  fc.assert(
    fc.property(
      grids,
      marks,
      fc.record({
        x: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
        y: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
      }),
      (grid, keeps, centre) => {
        const output = wholeDimensions(grid);
        const span = 0.5 * largestWindow(bounds, output).span;
        const wish = { centreX: 6000 * centre.x, centreY: 4000 * centre.y, span, ...upright };
        // A pixel of the files.
        const step = span / output.width;
        fc.pre(isInside(wish, bounds.box, output));
        const places = (axis: 'x' | 'y') =>
          Array.from({ length: 4001 }, (_, index) => (index - 2000) * step).filter((by) => {
            const moved =
              axis === 'x' ? { ...wish, centreX: wish.centreX + by } : { ...wish, centreY: wish.centreY + by };
            if (!isInside(moved, bounds.box, output)) return false;
            return keeps.every((mark) => {
              const { isQuiteWhole, depth } = along(mark, axis, moved, grid);
              return isQuiteWhole && depth <= 1e-9;
            });
          });
        const least = (axis: 'x' | 'y') => Math.min(...places(axis).map(Math.abs));
        const { window, cuts, outside } = composeStrip(bounds, grid, keeps, wish);
        if (!Number.isFinite(least('x') + least('y'))) return;
        expect({ cuts, outside }).toEqual({ cuts: [], outside: 0 });
        expect(window.span).toBeCloseTo(span, 6);
        const moved = { x: Math.abs(window.centreX - wish.centreX), y: Math.abs(window.centreY - wish.centreY) };
        for (const axis of axes) expect(moved[axis]).toBeLessThanOrEqual(least(axis) + 1e-6);
      },
    ),
    { numRuns: 100 },
  );
});
