import { expect, test } from 'vitest';
import type { Plane } from '../../planes/index.ts';
import { steadyNoise } from '../../testing/index.ts';
import { tiltOf } from './tiltOf.ts';

const size = { width: 640, height: 428 };
const random = steadyNoise(2026);
const between = (low: number, high: number) => low + ((random() + 1) / 2) * (high - low);

/** A picture in grey with grain, of so many levels each way. */
function picture(grain: number, level: (x: number, y: number) => number): Plane {
  const data = new Float32Array(size.width * size.height);
  for (let at = 0; at < data.length; at += 1) {
    const value = level((at % size.width) - size.width / 2, Math.floor(at / size.width) - size.height / 2);
    data[at] = Math.min(255, Math.max(0, value + grain * random()));
  }
  return { data, ...size };
}

/** Coordinates turned back by so many degrees. */
function turned(degrees: number, level: (x: number, y: number) => number): (x: number, y: number) => number {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return (x, y) => level(c * x + s * y, c * y - s * x);
}

/** Sea and sky, the horizon hidden by a sail. */
function horizon(degrees: number): Plane {
  const [sky, contrast, at, sail] = [between(120, 220), between(20, 90), between(-90, 90), between(-200, 200)];
  const level = turned(degrees, (_, y) => (y < at ? sky + y / 30 : sky - contrast + y / 20));
  return picture(between(4, 16), (x, y) => (Math.abs(x - sail) < 40 - y / 6 && y < 90 ? 60 : level(x, y)));
}

/** A front with windows. */
function front(degrees: number): Plane {
  const [wall, contrast, wide, high] = [between(120, 220), between(30, 90), between(60, 110), between(50, 90)];
  const within = (value: number, length: number) => ((value % length) + length) % length;
  const isPane = (x: number, y: number) => within(x, wide) > wide * 0.4 && within(y, high) > high * 0.35;
  return picture(
    between(4, 16),
    turned(degrees, (x, y) => (isPane(x, y) ? wall - contrast : wall)),
  );
}

test('the tilt of horizons and fronts is found to a fraction of a degree, through grain', () => {
  const angles = Array.from({ length: 8 }, (_, at) => -8 + (16 * at) / 7);
  const errors = angles.flatMap((degrees) =>
    [horizon(degrees), front(degrees)].flatMap((plane) => {
      const tilt = tiltOf(plane);
      return tilt ? [Math.abs(tilt.degrees - degrees)] : [];
    }),
  );
  errors.sort((a, b) => a - b);
  expect(errors.length).toBeGreaterThanOrEqual(0.8 * 2 * angles.length);
  expect(errors[errors.length >> 1]).toBeLessThan(0.2);
  expect(errors[Math.floor(errors.length * 0.95)]).toBeLessThan(0.7);
});

test('of what has no straight edges no tilt is told', () => {
  const leaves = Array.from({ length: 500 }, () => ({
    x: between(-320, 320),
    y: between(-214, 214),
    turn: between(0, Math.PI),
    long: between(6, 30),
    level: between(40, 200),
  }));
  const foliage = picture(6, (x, y) => {
    const leaf = leaves.findLast((one) => {
      if (Math.abs(x - one.x) > one.long || Math.abs(y - one.y) > one.long) return false;
      const [c, s] = [Math.cos(one.turn), Math.sin(one.turn)];
      const [along, across] = [c * (x - one.x) + s * (y - one.y), c * (y - one.y) - s * (x - one.x)];
      return (along / one.long) ** 2 + (across / (one.long / 3)) ** 2 < 1;
    });
    return leaf?.level ?? 100;
  });
  const rings = (spacing: number) =>
    picture(8, (x, y) => 128 + 80 * Math.sign(Math.sin(Math.hypot(x - 40, y) / spacing)));
  for (const plain of [foliage, rings(5), rings(17), picture(20, () => 150), picture(0, () => 90)]) {
    expect(tiltOf(plain)).toBeNull();
  }
});
