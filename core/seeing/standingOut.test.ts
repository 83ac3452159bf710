import { expect, test } from 'vitest';
import { coloursStandingOut } from './index.ts';

const sand = { red: 214, green: 190, blue: 150, count: 6000 };
const paleSand = { red: 220, green: 196, blue: 158, count: 5000 };
const sky = { red: 120, green: 170, blue: 220, count: 3000 };
const sail = { red: 200, green: 30, blue: 40, count: 60 };

test('the most frequent colour comes first, and a small bright one stands out before a second shade of it', () => {
  expect(coloursStandingOut([sky, paleSand, sail, sand], 3)).toEqual(['#d6be96', '#78aadc', '#c81e28']);
  expect(coloursStandingOut([sky, paleSand, sail, sand], 4)[3]).toBe('#dcc49e');
});

test('a picture with fewer colours proposes fewer, and none twice', () => {
  expect(coloursStandingOut([sand, { ...sand, count: 3 }], 5)).toEqual(['#d6be96']);
  expect(coloursStandingOut([], 5)).toEqual([]);
});
