import { expect, test } from 'vitest';
import { plainSettings } from '../model/index.ts';
import { samplePlace } from '../testing/index.ts';
import {
  area,
  boundsOf,
  bridgedShare,
  frameDimensions,
  gapPixels,
  gridOf,
  hasClosing,
  piecesOf,
  seamsOf,
  spreadOf,
  wholeDimensions,
} from './index.ts';

const picture = { width: 3000, height: 2000, trim: null };
const panels = samplePlace({ width: 1000, height: 500, group: { kind: 'panels', min: 2, max: 20 } });
const block = samplePlace({
  width: 1000,
  height: 500,
  group: { kind: 'block', columns: 3, rows: 2, gap: 0.012, postingOrder: [0, 1, 2, 3, 4, 5] },
});
const cut = { ...plainSettings, grid: { columns: 3, rows: 2 } };

test('a bridge leaves out the gap that the network shows, where it shows one', () => {
  expect([gapPixels(block), gapPixels(panels), gapPixels(samplePlace())]).toEqual([12, 0, 0]);
  expect(spreadOf(block, { ...cut, bridged: true })?.bridge).toBe(12);
  expect(spreadOf(block, cut)?.bridge).toBe(0);
  expect(frameDimensions(block, picture, { ...cut, bridged: true })).toEqual({ width: 3024, height: 1012 });
});

test('only a place of several pieces with a height of its own is cut, and only a strip ends with a closing panel', () => {
  expect(spreadOf(samplePlace(), cut)).toBeNull();
  expect(spreadOf(block, plainSettings)).toBeNull();
  expect(spreadOf({ ...block, height: { min: 100, max: 900 } }, cut)).toBeNull();
  const closing = { kind: 'colour', colour: '#ffffff' } as const;
  const strip = { ...plainSettings, grid: { columns: 3, rows: 1 } };
  expect(gridOf(panels, { ...strip, closing })?.columns).toBe(4);
  expect(gridOf(panels, strip)?.columns).toBe(3);
  expect([hasClosing(block, { ...cut, closing }), hasClosing(panels, { ...plainSettings, closing })]).toEqual([
    false,
    false,
  ]);
});

test('pieces lie in reading order with a bridge between, and seams are the bridges', () => {
  const grid = { columns: 3, rows: 2, piece: { width: 100, height: 80 }, bridge: 6 };
  expect(piecesOf(grid).map(({ left, top }) => [left, top])).toEqual([
    [0, 0],
    [106, 0],
    [212, 0],
    [0, 86],
    [106, 86],
    [212, 86],
  ]);
  expect(seamsOf(grid)).toEqual([
    { axis: 'x', start: 100, width: 6 },
    { axis: 'x', start: 206, width: 6 },
    { axis: 'y', start: 80, width: 6 },
  ]);
  const shown = piecesOf(grid).reduce((sum, piece) => sum + area(piece), 0);
  expect(bridgedShare(grid)).toBeCloseTo(1 - shown / area(wholeDimensions(grid)), 12);
  expect(bridgedShare({ ...grid, bridge: 0 })).toBe(0);
});

test('only a backing lets a window reach past the picture', () => {
  expect(boundsOf(picture, null)).toEqual({ box: { left: 0, top: 0, width: 3000, height: 2000 }, beyond: false });
  expect(boundsOf(picture, { kind: 'echo' }).beyond).toBe(true);
});
