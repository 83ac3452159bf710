import { expect, test } from 'vitest';
import { histogramOf } from '../../seeing/index.ts';
import { tonePoints } from '../index.ts';

const histogram = (levels: number[]) =>
  histogramOf({ data: Uint8Array.from(levels), width: levels.length, height: 1, channels: 1 });
const times = (count: number, level: number) => new Array<number>(count).fill(level);

test('automatic ones leave out the share that was asked for, and stay 64 levels apart', () => {
  const spread = histogram([...times(2, 20), ...times(96, 100), ...times(2, 220)]);
  expect(tonePoints({ kind: 'automatic', clip: 0 }, spread)).toMatchObject({
    black: [20, 20, 20],
    white: [220, 220, 220],
  });
  const fog = tonePoints({ kind: 'automatic', clip: 0.02001 }, spread);
  expect(fog).toEqual({ black: [68, 68, 68], white: [132, 132, 132], midtones: 1 });
  const dark = tonePoints({ kind: 'automatic', clip: 0 }, histogram(times(9, 4)));
  expect(dark).toMatchObject({ black: [0, 0, 0], white: [36, 36, 36] });
  const light = tonePoints({ kind: 'automatic', clip: 0 }, histogram(times(9, 250)));
  expect(light).toMatchObject({ black: [218, 218, 218], white: [255, 255, 255] });
  expect(tonePoints({ kind: 'automatic', clip: 0 }, histogram([]))).toMatchObject({ black: [0, 0, 0], midtones: 1 });
});

test('paper becomes white by its peak and its unevenness, and by what is no line', () => {
  const paper = (levels: number[]) => tonePoints({ kind: 'paper' }, histogram(levels));
  // Smoothed over five levels, 199 to 201 have their peak at 199; two standard deviations of what lies above are paper.
  const smooth = paper([...times(3, 10), ...times(20, 199), ...times(57, 200), ...times(20, 201)]);
  expect(smooth.black).toEqual([10, 10, 10]);
  expect(smooth.white[0]).toBeCloseTo(199 - 2 * Math.sqrt((57 + 20 * 4) / 97), 6);
  // So uneven that it would reach into the lines: 18 % below its peak is where it ends.
  const uneven = paper([...times(1, 10), ...times(60, 150), ...times(40, 250)]);
  expect(uneven.white[0]).toBeCloseTo(148 * 0.82, 6);
  // Black stays 64 below white, and without anything light the points are automatic.
  expect(paper([...times(5, 90), ...times(95, 100)])).toMatchObject({ black: [30, 30, 30], white: [94, 94, 94] });
  expect(paper(times(20, 80))).toMatchObject({ black: [48, 48, 48], white: [112, 112, 112] });
  expect(paper([])).toMatchObject({ black: [0, 0, 0], white: [255, 255, 255] });
});
