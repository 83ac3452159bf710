import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { wholeOf } from '../geometry/index.ts';
import { type KeepMark, type MarkToCompose, type Place, plainSettings } from '../model/index.ts';
import { sampleArea, sampleMark, samplePlace } from '../testing/index.ts';
import type { Constraint } from './constraints.ts';
import { bestAnswer } from './feasible.ts';
import { framePoseOf, insidePicture } from './halfSpaces.ts';
import { composeWindow, contentAreaOf, coveredRects, markInFrame, plainContentArea } from './index.ts';
import { type HalfSpace, maximise } from './linearProgram.ts';
import { wanting } from './wantedWindow.ts';

const original = { width: 1200, height: 800 };
const bounds = wholeOf(original);
const area = (at: Place) => plainContentArea(at, { ...original, trim: null });

let count = 0;
const id = () => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;
const box = (left: number, top: number, width: number, height: number) => ({ left, top, width, height });
const keep = (at: ReturnType<typeof box>, more: Partial<MarkToCompose> = {}): MarkToCompose =>
  ({ ...sampleMark({ id: id(), name: 'Flyer', ...at }), ...more }) as MarkToCompose;
const avoid = (at: ReturnType<typeof box>): MarkToCompose => ({
  id: id(),
  name: 'Litter bin',
  shape: 'rectangle',
  role: 'avoid',
  ...at,
});

/** A number from 0 to 1, in steps. */
const share = fc.integer({ min: 0, max: 100 }).map((value) => value / 100);

describe('the window that is chosen', () => {
  test('the best of all ways to keep demands is found, as trying each of them finds it', () => {
    const way = fc.record({
      normal: fc.tuple(share, share, share).map(([x, y, span]) => [x - 0.5, y - 0.5, span]),
      limit: share,
    });
    const demand = fc.array(fc.array(way, { minLength: 1, maxLength: 3 }), { maxLength: 2 });
    const base: HalfSpace[] = [
      [1, 0, 0.5],
      [-1, 0, 0.5],
      [0, 1, 0.5],
      [0, -1, 0.5],
      [0, 0, -1],
    ].map((normal, at) => ({ normal, limit: [1, 0, 1, 0, -0.05][at] ?? 0 }));
    fc.assert(
      fc.property(fc.array(demand, { maxLength: 2 }), (choices) => {
        const demands: Constraint[] = choices.map((oneOf) => ({ all: [], oneOf }));
        const found = bestAnswer(base, demands, {
          bound: ({ widest }) => widest[2] ?? 0,
          answer: ({ widest }) => ({ point: widest, worth: widest[2] ?? 0 }),
        });
        const all = choices
          .flat()
          .reduce<HalfSpace[][]>((chosen, ways) => chosen.flatMap((some) => ways.map((one) => [...some, one])), [[]]);
        const worths = all.flatMap((some) => maximise([0, 0, 1], [...base, ...some])?.[2] ?? []);
        if (worths.length === 0) expect(found).toBeNull();
        else expect(found?.worth).toBeCloseTo(Math.max(...worths), 6);
      }),
    );
  });

  test('a subject lies where the composition wants it, however the picture is turned; where it cannot, the score says how far off', () => {
    const at = samplePlace({ width: 300, height: 300 });
    const turn = fc.constantFrom(0, 90, 180, -90);
    fc.assert(
      fc.property(turn, share, share, fc.boolean(), (degrees, across, down, isFace) => {
        const mark = keep(box(20 + across * 1120, 20 + down * 720, 40, 40), isFace ? { kind: 'face' } : {});
        const { window, score } = composeWindow(bounds, area(at), [mark], { turn: degrees, mirror: false });
        const rect = markInFrame(mark, window, { width: 300, height: 300 });
        const centre = { x: rect.left + rect.width / 2, y: rect.top + rect.height / 2 };
        // Where the mark lies in the picture as the frame sees it.
        const [x, y] = [(mark.left + 20) / 1200, (mark.top + 20) / 800];
        const seen = { 0: [x, y], 90: [1 - y, x], 180: [1 - x, 1 - y], [-90]: [y, 1 - x] }[degrees] ?? [x, y];
        const within = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));
        const wanted = {
          x: 300 * within(seen[0] ?? 0, 1 / 3, 2 / 3),
          y: 300 * within(seen[1] ?? 0, isFace ? 0.38 : 1 / 3, isFace ? 0.5 : 2 / 3),
        };
        const away = Math.hypot(centre.x - wanted.x, centre.y - wanted.y) / Math.hypot(300, 300);
        expect(score.composition).toBeCloseTo(Math.max(0, 1 - 2 * away), 4);
        // In the middle of the picture there is room for what is wanted.
        if (Math.abs(x - 0.5) < 0.1 && Math.abs(y - 0.5) < 0.1) expect(score.composition).toBeGreaterThan(0.999);
      }),
    );
  });

  test('what was only seen yields to what a person wants out; what they keep does not, and a must goes before both', () => {
    const at = samplePlace({ width: 300, height: 300 });
    // Nothing shows the one without the other.
    const [inside, bin] = [box(300, 200, 300, 300), box(400, 300, 60, 60)];
    const kept = (mark: MarkToCompose) => composeWindow(bounds, area(at), [mark, avoid(bin)]).score;
    expect(kept(keep(inside, { priority: 'should' }))).toMatchObject({ kept: 1, avoided: 0 });
    expect(kept(keep(inside, { priority: 'must' }))).toMatchObject({ kept: 1, avoided: 0 });
    expect(kept(keep(inside, { priority: 'must', proposed: 'sure' }))).toMatchObject({ kept: 1, avoided: 0 });
    expect(kept(keep(inside, { priority: 'should', proposed: 'sure' }))).toMatchObject({ kept: 0, avoided: 1 });
    // What was seen is kept all the same where that costs nothing of what was asked for.
    const seen = keep(box(900, 300, 100, 100), { priority: 'should', proposed: 'likely' });
    const far = keep(box(20, 300, 100, 100));
    const both = composeWindow(bounds, area(at), [seen, avoid(box(1100, 0, 100, 800)), far]);
    expect(both.unmet.map(({ markId }) => markId)).toEqual([seen.id]);
  });

  test('where not all marks can be kept, those that are have room round them', () => {
    const tall = samplePlace({ width: 200, height: 400 });
    // The rule of thirds alone would put it to the edge.
    const [left, right] = [keep(box(160, 300, 300, 200)), keep(box(900, 300, 200, 200), { priority: 'should' })];
    const { window, unmet } = composeWindow(bounds, area(tall), [left, right]);
    expect(unmet.map(({ markId }) => markId)).toEqual([right.id]);
    const rect = markInFrame(left, window, { width: 200, height: 400 });
    const room = rect.width * 0.15;
    expect(rect.left).toBeGreaterThanOrEqual(room - 0.01);
    expect(200 - rect.left - rect.width).toBeGreaterThanOrEqual(room - 0.01);
  });

  test('an avoid mark that cannot stay out gives way to those that can, and to what is kept', () => {
    const at = samplePlace({ width: 300, height: 300 });
    const [everything, bin, kite] = [
      avoid(box(0, 0, 1200, 800)),
      avoid(box(100, 100, 60, 60)),
      keep(box(1000, 500, 80, 80)),
    ];
    const { unmet, score } = composeWindow(bounds, area(at), [everything, bin, kite]);
    expect(unmet.map(({ markId }) => markId)).toEqual([everything.id]);
    expect(score).toMatchObject({ kept: 1, avoided: 0.5 });
  });

  test('a window is worth its extent, less up to half of that for a poorer composition', () => {
    const contentArea = area(samplePlace({ width: 300, height: 300 }));
    const picture = { left: 0, top: 0, width: 1, height: 800 / 1200 };
    const framePose = framePoseOf(contentArea.dimensions, { turn: 0, mirror: false });
    const full = 800 / 1200;
    const setting = { contentArea, framePose, box: picture, full, sharpSpan: 0.25, words: null };
    const corner = keep(box(0, 0, 40, 40));
    const scaledCorner = { ...corner, left: 0, top: 0, width: 40 / 1200, height: 40 / 1200 } as KeepMark;
    const base = insidePicture({ box: picture, beyond: false }, framePose);
    for (const widest of [0.6, 0.3]) {
      const answer = bestAnswer([...base, { normal: [0, 0, 1], limit: widest }], [], wanting([scaledCorner], setting));
      expect(answer?.composition).toBeLessThan(0.9);
      expect(answer?.worth).toBeCloseTo((widest / full) * (1 - 0.5 * (1 - (answer?.composition ?? 0))), 9);
    }
  });

  test('covered areas count where they lie on the frame, on every row of pieces; a ring inside takes its width of a circle', () => {
    const output = { width: 300, height: 300 };
    const covered = [
      sampleArea(-50, 10, 50, 20),
      sampleArea(10, 300, 20, 20),
      sampleArea(-10, -10, 30, 30),
      sampleArea(400, 400, 10, 10),
    ];
    expect(coveredRects({ covered }, output).map(({ left, top, width, height }) => [left, top, width, height])).toEqual(
      [[0, 0, 20, 20]],
    );
    const quilt = samplePlace({
      width: 300,
      height: 300,
      covered: [sampleArea(10, 20, 30, 40)],
      group: { kind: 'quilt', columns: 2, minRows: 1, maxRows: 4, gap: 0, posting: 'last tile first' },
    });
    const settings = { ...plainSettings, border: null, grid: { columns: 2, rows: 2 } };
    const tops = contentAreaOf(quilt, { ...original, trim: null }, settings).covered.map(({ left, top }) => [
      left,
      top,
    ]);
    expect(tops).toEqual([
      [10, 20],
      [310, 20],
      [10, 320],
      [310, 320],
    ]);
    const circle = samplePlace({ width: 300, height: 300, purpose: 'profile', shape: 'circle' });
    const ringed = { ...plainSettings, border: null, ring: { width: 40, colour: '#000000', side: 'inside' as const } };
    const mark = keep(box(570, 130, 60, 540));
    const { window } = composeWindow(bounds, contentAreaOf(circle, { ...original, trim: null }, ringed), [mark]);
    const rect = markInFrame(mark, window, output);
    const corner = Math.hypot(
      Math.max(150 - rect.left, rect.left + rect.width - 150),
      Math.max(150 - rect.top, rect.top + rect.height - 150),
    );
    expect(corner).toBeLessThanOrEqual(110.1);
  });
});
