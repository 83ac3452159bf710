import { expect, test } from 'vitest';
import { natureOf } from './index.ts';

/** A grey picture from its columns: every row is the same, so that neighbours above never differ. */
function columns(levels: readonly number[]) {
  const height = 17;
  const data = Uint8Array.from({ length: levels.length * height }, (_, at) => levels[at % levels.length] ?? 0);
  return { data, width: levels.length, height, channels: 1 as const };
}

test('neighbours that are alike are flat, those a little apart are noise, those far apart an edge', () => {
  // Eight steps: two alike, by 1, by 3, by 8, by 9, by 39, by 40 levels.
  const levels = [100, 100, 100, 101, 104, 112, 121, 160, 200];
  expect(natureOf(columns(levels))).toMatchObject({ flat: 0.25, edges: 0.125, noise: 4, kind: 'mixed' });
  // Down as up, and of all channels the furthest apart.
  expect(natureOf(columns([...levels].reverse()))).toMatchObject({ flat: 0.25, edges: 0.125, noise: 4 });
  const coloured = { ...columns(levels), channels: 3 as const };
  const data = Uint8Array.from([...coloured.data].flatMap((level) => [90, level, 90]));
  expect(natureOf({ ...coloured, data })).toMatchObject({ flat: 0.25, edges: 0.125, noise: 4 });
});

test('half of the pixels alike make flat artwork, less than a fifth a photograph', () => {
  const alike = (count: number, of: number) =>
    columns(Array.from({ length: of + 1 }, (_, at) => 60 + 3 * Math.max(0, at - count)));
  expect(natureOf(alike(5, 10)).kind).toBe('flat artwork');
  expect(natureOf(alike(4, 10)).kind).toBe('mixed');
  expect(natureOf(alike(2, 10)).kind).toBe('mixed');
  expect(natureOf(alike(1, 10)).kind).toBe('photo');
});

test('colours are told apart by the five upper bits of each channel', () => {
  expect(natureOf(columns([0, 7, 8, 16, 17, 255])).colours).toBe(4);
  const pixels = [
    [0, 0, 0],
    [8, 0, 0],
    [0, 8, 0],
    [0, 0, 8],
    [0, 0, 9],
  ];
  const data = Uint8Array.from(Array.from({ length: 9 }, () => pixels).flat(2));
  expect(natureOf({ data, width: 5, height: 9, channels: 3 }).colours).toBe(3);
});

test('a picture without neighbours to look at is nothing in particular', () => {
  const one = { data: Uint8Array.from([9, 9, 9]), width: 1, height: 1, channels: 3 as const };
  expect(natureOf(one)).toMatchObject({ flat: 0, edges: 0, noise: 0, colours: 0 });
});
