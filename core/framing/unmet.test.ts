import { describe, expect, test } from 'vitest';
import { type KeepMark, type Mark, type Place, plainSettings, type Ring } from '../model/index.ts';
import { sampleArea, sampleMark, sampleOriginal, samplePlace } from '../testing/index.ts';
import { compositionOf } from './composition.ts';
import { framePoseOf } from './halfSpaces.ts';
import { contentAreaOf, unmetMarks } from './index.ts';

// The frame shows 600 x 600 pixels of the original, from (700, 700) on, at their own size.
const window = { centreX: 1000, centreY: 1000, span: 600, turn: 0, mirror: false };
const original = sampleOriginal({ width: 2000, height: 2000 });
const keep = (left: number, top: number, width: number, height: number, values: Partial<KeepMark> = {}) =>
  sampleMark({ left: 700 + left, top: 700 + top, width, height, ...values });
const areaOf = (
  place: Partial<Place> = {},
  settings: { ring?: Ring; stretch?: number; grid?: { columns: number; rows: number } } = {},
) =>
  contentAreaOf(samplePlace({ width: 600, height: 600, ...place }), original, {
    ...plainSettings,
    border: null,
    ...settings,
  });
const told = (mark: Mark, place: Partial<Place> = {}, settings = {}) =>
  unmetMarks(window, areaOf(place, settings), [mark]).map(({ kind, pixels, text }) => `${kind} ${pixels}: ${text}`);

describe('what a window does not honour', () => {
  test('a mark is cut where it reaches out by more than anybody sees, on any side', () => {
    for (const inside of [keep(0, 0, 600, 600), keep(-0.4, 100, 50, 50), keep(550, 550.4, 50, 50)])
      expect(told(inside)).toEqual([]);
    expect(told(keep(-0.6, 100, 50, 50))).toEqual(['cut 1: The kite is cut: the frame is 1 px too narrow for it.']);
    expect(told(keep(580, 100, 60, 50))).toEqual(['cut 40: The kite is cut: the frame is 40 px too narrow for it.']);
    expect(told(keep(100, -30, 50, 50))).toEqual(['cut 30: The kite is cut: the frame is 30 px too low for it.']);
    expect(told(keep(100, 575, 50, 50))).toEqual(['cut 25: The kite is cut: the frame is 25 px too low for it.']);
    expect(told(keep(-20, -10, 700, 50))).toEqual(['cut 80: The kite is cut: the frame is 100 px too narrow for it.']);
    expect(told(keep(-20, -20, 50, 50))[0]).toContain('20 px too narrow');
    const panels = { group: { kind: 'panels', min: 2, max: 4 } } as const;
    const strip = told(keep(-20, 0, 50, 50), { width: 300, ...panels }, { grid: { columns: 2, rows: 1 } });
    expect(strip).toEqual(['cut 20: The kite is cut: the strip is 20 px too narrow for it.']);
    // Drawn twice as wide as it is, the window ends at 1600 of the original, and 40 of its pixels are 20 of the file.
    expect(told(keep(100, 880, 50, 60), {}, { stretch: 2 })[0]).toContain('20 px too low');
  });

  test('a rounding and a ring cut what lies within the file', () => {
    const corner = keep(20, 20, 50, 50);
    expect(told(corner, { shape: 'circle' })[0]).toMatch(/^cut \d+: The kite is cut by the circle’s rounding\.$/);
    expect(told(keep(0, 0, 30, 30), { shape: 'rounded' })[0]).toMatch(/cut by the frame’s rounding/);
    expect(told(corner, { shape: 'rounded' })).toEqual([]);
    const ring = { width: 40, colour: '#1f6f66', side: 'inside' } as const;
    expect(told(keep(20, 275, 50, 50), { shape: 'circle' }, { ring })[0]).toContain('The kite lies under the ring.');
    expect(told(keep(45, 275, 50, 50), { shape: 'circle' }, { ring })).toEqual([]);
  });

  test('what covers a mark is named, each reason once; half a pixel covers nothing', () => {
    const bar = sampleArea(0, 500, 600, 100);
    const badge = { ...sampleArea(400, 450, 100, 100), reason: 'a badge' };
    const covered = [bar, badge, sampleArea(0, 520, 600, 80)];
    expect(told(keep(420, 460, 100, 100), { covered })).toEqual([
      'covered 0: The kite lies under controls and a badge.',
    ]);
    expect(told(keep(50, 450.5, 50, 50), { covered })).toEqual([]);
    expect(told(keep(50, 450.6, 50, 50), { covered })[0]).toContain('under controls.');
    expect(told(keep(350.5, 400, 50, 100), { covered })).toEqual([]);
    const shownPart = { ...sampleArea(100, 100, 400, 400), reason: 'phones' };
    expect(told(keep(99.6, 99.6, 400.8, 400.8), { shownPart })).toEqual([]);
    for (const [left, top] of [
      [99, 200],
      [200, 99],
      [452, 200],
      [200, 452],
    ] as const)
      expect(told(keep(left, top, 50, 50), { shownPart })).toEqual([
        'not always shown 0: The kite lies outside the part that is always shown (phones).',
      ]);
  });

  test('what should stay out is told where it can be seen; all are told in their order', () => {
    const avoid = (left: number, top: number): Mark => {
      const { priority: _, kind: __, look: ___, ...rest } = keep(left, top, 50, 50, { name: 'The bin' });
      return { ...rest, role: 'avoid' };
    };
    expect(told(avoid(-20, 100))).toEqual(['shown 0: The bin is in the frame and should stay out.']);
    expect([told(avoid(-49.5, 100)), told(avoid(100, 599.5)), told(avoid(700, 100))]).toEqual([[], [], []]);
    expect([told(avoid(-49.4, 100)), told(avoid(100, 599.4))].flat()).toHaveLength(2);
    const all = unmetMarks(window, areaOf(), [avoid(10, 10), keep(100, 100, 50, 50), keep(-9, 0, 50, 50)]);
    expect(all.map(({ kind }) => kind)).toEqual(['shown', 'cut']);
  });
});

describe('where a subject is wanted', () => {
  const box = { left: 0, top: 0, width: 2000, height: 2000 };
  /** The place in the frame, 0..1 each way, at which the middle of the subject is wanted. */
  const wanted = (marks: readonly KeepMark[], place: Partial<Place> = {}, pose: Partial<typeof window> = {}) => {
    const area = areaOf(place);
    const framePose = framePoseOf(area.dimensions, { ...window, ...pose });
    const { offset, span, leastExtent } = compositionOf(marks, { box, contentArea: area, framePose, words: null });
    const { width, height } = area.dimensions;
    const rounded = (value: number) => Math.round(value * 1000) / 1000;
    return { x: rounded(offset.x + 0.5), y: rounded((offset.y * width) / height + 0.5), span, leastExtent };
  };
  /** A mark whose middle lies at a share of the picture. */
  const at = (x: number, y: number, values: Partial<KeepMark> = {}) =>
    keep(2000 * x - 750, 2000 * y - 750, 100, 100, values);

  test('in the middle third it stays where it is, further out it goes to the line of the thirds', () => {
    expect(wanted([])).toMatchObject({ x: 0.5, y: 0.5, span: null, leastExtent: 1 });
    expect(wanted([at(0.45, 0.6)])).toMatchObject({ x: 0.45, y: 0.6, span: null, leastExtent: 0.75 });
    expect(wanted([at(0.1, 0.9)])).toMatchObject({ x: 0.333, y: 0.667 });
    expect(wanted([at(0.9, 0.1)])).toMatchObject({ x: 0.667, y: 0.333 });
    // Seen in a mirror, or from the side, it is what lies there.
    expect(wanted([at(0.1, 0.45)], {}, { mirror: true })).toMatchObject({ x: 0.667, y: 0.45 });
    expect(wanted([at(0.1, 0.45)], {}, { turn: 180 })).toMatchObject({ x: 0.667, y: 0.55 });
  });

  test('faces come to the upper eye line and have room where they look', () => {
    const face = (look: KeepMark['look'] = null) => at(0.5, 0.1, { kind: 'face', look });
    expect(wanted([face()])).toMatchObject({ x: 0.5, y: 0.38 });
    expect(wanted([at(0.5, 0.9, { kind: 'face' })])).toMatchObject({ y: 0.5 });
    expect([wanted([face('left')]).x, wanted([face('right')]).x]).toEqual([0.58, 0.42]);
    expect(wanted([face('left'), face('left')]).x).toBe(0.58);
    expect(wanted([face('left'), face('right')]).x).toBe(0.5);
    expect(wanted([face('left')], {}, { mirror: true }).x).toBe(0.42);
  });

  test('it is about the faces among the musts, else the musts, else all, and lies where nothing covers', () => {
    const far = at(0.1, 0.5);
    const shouldFace = at(0.9, 0.5, { kind: 'face', priority: 'should' });
    const face = at(0.6, 0.5, { kind: 'face' });
    expect(wanted([far, face, shouldFace]).x).toBe(0.6);
    expect(wanted([far, shouldFace]).x).toBe(0.333);
    expect(wanted([at(0.4, 0.5, { priority: 'should' }), at(0.6, 0.5, { priority: 'should' })]).x).toBe(0.5);
    // Of 600 pixels of height 400 are free: a half of those, from the top.
    expect(wanted([at(0.5, 0.5)], { covered: [sampleArea(0, 400, 600, 200)] })).toMatchObject({ x: 0.5, y: 0.333 });
    expect(wanted([at(0.5, 0.5)], { covered: [sampleArea(0, 0, 150, 600)] })).toMatchObject({ x: 0.625, y: 0.5 });
  });

  test('a profile picture has it in the middle and large, whichever side is longer', () => {
    const profile = { purpose: 'profile', height: 300 } as const;
    const of = (width: number, height: number) => wanted([keep(-700, -700, width, height)], profile);
    expect(of(400, 100)).toMatchObject({ x: 0.5, y: 0.5, span: 400 / 0.62 });
    expect(of(100, 400)).toMatchObject({ span: 800 / 0.62 });
  });
});
