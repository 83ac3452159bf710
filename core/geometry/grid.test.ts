import { expect, test } from 'vitest';
import { plainSettings } from '../model/index.ts';
import { samplePlace } from '../testing/index.ts';
import { frameDimensions, gapPixels, gridOf, hasClosing, spreadOf } from './index.ts';

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
