import { expect, test } from 'vitest';
import { originalToFrame, snapWindow, wholeOf, windowAt } from './index.ts';

const bounds = wholeOf({ width: 3000, height: 2000 });
const output = { width: 600, height: 400 };
const mark = { left: 1000, top: 700, width: 200, height: 100 };
const at = (left: number, top: number, pose = { turn: 0, mirror: false }) => windowAt(left, top, 1200, output, pose);

test('a mark’s middle snaps to a third of the frame, on each axis by itself', () => {
  // 1100 lies on the first third where the window begins at 700; a pixel of the frame is two of the original.
  const { window, snaps } = snapWindow(at(708, 320), [mark], bounds, output, 6);
  expect(snaps).toEqual([{ axis: 'x', at: 1 / 3, what: 'middle of a mark' }]);
  expect(originalToFrame(window, output, { x: 1100, y: 750 }).x).toBeCloseTo(200, 6);
  expect(window.centreY).toBeCloseTo(at(708, 320).centreY, 9);
});

test('picture edges, its middle and the edges of marks are snapped to as well; further away nothing happens', () => {
  expect(snapWindow(at(9, 5), [], bounds, output, 6)).toMatchObject({
    window: { centreX: 600, centreY: 400 },
    snaps: [
      { axis: 'x', at: 0, what: 'edge of the picture' },
      { axis: 'y', at: 0, what: 'edge of the picture' },
    ],
  });
  expect(snapWindow(at(895, 300), [], bounds, output, 6).window.centreX).toBe(1500);
  expect(snapWindow(at(1004, 300), [mark], bounds, output, 6).snaps).toMatchObject([{ what: 'edge of a mark', at: 0 }]);
  const free = at(640, 320);
  expect(snapWindow(free, [mark], bounds, output, 6)).toEqual({ window: free, snaps: [] });
});

test('the last line of a frame counts as the first does; a tilted picture’s edges run across it and do not', () => {
  // The mark ends at 1400, the window at 1403.
  expect(snapWindow(at(203, 300), [{ left: 1100, top: 900, width: 300, height: 90 }], bounds, output, 2).snaps).toEqual(
    [{ axis: 'x', at: 1, what: 'edge of a mark' }],
  );
  expect(snapWindow(at(1797, 1197), [], bounds, output, 6).snaps).toMatchObject([
    { axis: 'x', at: 1, what: 'edge of the picture' },
    { axis: 'y', at: 1, what: 'edge of the picture' },
  ]);
  const tilted = windowAt(1300, 500, 1000, output, { turn: 7, mirror: false });
  const { x, y } = originalToFrame(tilted, output, { x: 1400, y: 700 });
  const corner = { left: 1400, top: 700, width: 1, height: 1 };
  const edges = snapWindow(tilted, [corner], bounds, output, Math.min(x, y) + 1).snaps.filter(({ what }) =>
    what.startsWith('edge'),
  );
  expect(edges).toEqual([]);
});

test('in a turned and mirrored frame it is the frame’s own lines that count', () => {
  for (const pose of [
    { turn: 90, mirror: true },
    { turn: 7, mirror: false },
  ]) {
    const near = windowAt(500, 360, 1000, output, pose);
    const middle = originalToFrame(near, output, { x: 1100, y: 750 });
    const to = [200, 300, 400].reduce((a, b) => (Math.abs(b - middle.x) < Math.abs(a - middle.x) ? b : a));
    const { window, snaps } = snapWindow(near, [mark], bounds, output, Math.abs(middle.x - to) + 1);
    expect(snaps.some((snap) => snap.axis === 'x' && snap.what === 'middle of a mark')).toBe(true);
    expect(originalToFrame(window, output, { x: 1100, y: 750 }).x).toBeCloseTo(to, 6);
  }
});
