import { expect, test } from 'vitest';
import { boundsOf, largestWindow, wholeWindow } from '../geometry/index.ts';
import { type Border, type FrameSettings, type Place, plainSettings, type Ring } from '../model/index.ts';
import { composeStrip } from '../splitting/index.ts';
import { byHand, sampleArea, sampleMark, sampleOriginal, samplePlace } from '../testing/index.ts';
import { borderMargins, borderOf, composeWindow, contentAreaOf, frameWindow, ringOf } from './index.ts';

const original = sampleOriginal({ width: 3000, height: 2000 });
const ring = (side: Ring['side'], width = 30): Ring => ({ width, colour: '#1f6f66', side });
const border = (values: Partial<Border> = {}): Border => ({
  width: 10,
  colour: '#ffffff',
  side: 'outside',
  edges: { left: true, top: false, right: true, bottom: true },
  round: 'whole',
  ...values,
});
const contentArea = (place: Partial<Place>, settings: Partial<FrameSettings> & { border?: Border } = {}) =>
  contentAreaOf(samplePlace(place), original, { ...plainSettings, border: null, ...settings });

test('a ring is for one picture of a shape, and leaves most of it', () => {
  const file = { width: 300, height: 200 };
  expect(ringOf({ shape: 'circle' }, file, ring('inside'))).toEqual(ring('inside'));
  expect(ringOf({ shape: 'rounded' }, file, ring('outside', 100))).toEqual(ring('outside', 80));
  expect(ringOf({ shape: 'rectangle' }, file, ring('inside'))).toBeNull();
  expect(ringOf({ shape: 'circle', group: { kind: 'panels', min: 2, max: 3 } }, file, ring('inside'))).toBeNull();
  expect(ringOf({ shape: 'circle' }, file, null)).toBeNull();
  expect([borderOf({ shape: 'rectangle' }, border())?.width, borderOf({ shape: 'circle' }, border())]).toEqual([
    10,
    null,
  ]);
});

test('a border outside takes its width on its edges, at most a quarter of a side; any other takes nothing', () => {
  const file = { width: 300, height: 200 };
  const none = { left: 0, top: 0, right: 0, bottom: 0 };
  expect(borderMargins(border(), file, false)).toEqual({ left: 10, top: 0, right: 10, bottom: 10 });
  expect(borderMargins(border({ width: 90 }), file, false)).toEqual({ left: 50, top: 0, right: 50, bottom: 50 });
  expect(borderMargins(border(), file, true)).toEqual(none);
  expect(borderMargins(border({ side: 'inside' }), file, false)).toEqual(none);
  expect(borderMargins(border({ round: 'pieces' }), file, false)).toEqual(none);
  expect(borderMargins(null, file, false)).toEqual(none);
});

test('what a window fills is the file less ring and border, its height stretched, and so is what lies on it', () => {
  const covered = [sampleArea(100, 80, 40, 20)];
  const shownPart = sampleArea(50, 40, 400, 300);
  expect(contentArea({ covered, shownPart })).toMatchObject({
    dimensions: { width: 600, height: 500 },
    inset: { x: 0, y: 0 },
    covered,
    shownPart,
    grouped: false,
  });
  expect(
    contentArea(
      { covered, shownPart },
      { border: border({ edges: { left: true, top: true, right: false, bottom: true } }), stretch: 2 },
    ),
  ).toMatchObject({
    dimensions: { width: 590, height: 960 },
    covered: [{ left: 90, top: 140, width: 40, height: 40 }],
    shownPart: { left: 40, top: 60, width: 400, height: 600 },
  });
  const round = { shape: 'circle', height: 600, covered } as const;
  expect(contentArea(round, { ring: ring('outside'), stretch: 0.5 })).toMatchObject({
    dimensions: { width: 540, height: 270 },
    inset: { x: 0, y: 0 },
    covered: [{ left: 70, top: 25, width: 40, height: 10 }],
  });
  expect(contentArea(round, { ring: ring('inside'), stretch: 0.5 })).toMatchObject({
    dimensions: { width: 600, height: 300 },
    inset: { x: 30, y: 15 },
  });
});

test('of several pieces each is covered alike, none is always shown, and the closing one is no part of it', () => {
  const group = { kind: 'panels', min: 2, max: 9 } as const;
  const strip = { group, covered: [sampleArea(500, 0, 100, 50)], shownPart: sampleArea(0, 0, 300, 300) };
  const cut = { grid: { columns: 3, rows: 1 } };
  const open = contentArea(strip, cut);
  expect(open).toMatchObject({ dimensions: { width: 1800, height: 500 }, shownPart: null, grouped: true });
  expect(open.covered.map(({ left }) => left)).toEqual([500, 1100, 1700]);
  const closed = contentArea(strip, { ...cut, closing: { kind: 'echo' }, border: border() });
  expect(closed).toMatchObject({ dimensions: { width: 1800, height: 500 } });
  expect(closed.covered).toHaveLength(3);
  expect(contentArea(strip, { ...cut, border: border() }).dimensions).toEqual({ width: 1780, height: 490 });
});

test('a window is as a hand has left it, or composed: of marks, of seams, or to show all on a backing', () => {
  const mark = sampleMark({ left: 2700, top: 300, width: 200, height: 200 });
  const marked = { ...original, marks: [mark] };
  const place = samplePlace();
  const settings = { ...byHand({ centreX: 1500, centreY: 1000, span: 900 }), border: null };
  const bounds = boundsOf(original, null);
  expect(frameWindow(marked, place, settings, 0)).toEqual(settings.window);
  expect(frameWindow(marked, place, { ...settings, window: { ...settings.window, centreX: -50 } }, 0).centreX).toBe(
    450,
  );
  const composed = { ...settings, composed: true };
  const area = contentAreaOf(place, original, composed);
  expect(frameWindow(marked, place, composed, 0)).toEqual(composeWindow(bounds, area, [mark]).window);
  expect(frameWindow(original, place, composed, 0)).toMatchObject({
    span: largestWindow(bounds, area.dimensions).span,
  });
  const backing = { kind: 'echo' } as const;
  expect(frameWindow(marked, place, { ...composed, backing }, 0)).toEqual(
    wholeWindow(boundsOf(original, backing), area.dimensions),
  );
  const panels = samplePlace({ group: { kind: 'panels', min: 2, max: 9 } });
  const cut = { ...composed, grid: { columns: 3, rows: 1 } };
  const grid = { columns: 3, rows: 1, piece: { width: 600, height: 500 }, bridge: 0 };
  expect(frameWindow(marked, panels, cut, 0)).toEqual(composeStrip(bounds, grid, [mark]).window);
});
