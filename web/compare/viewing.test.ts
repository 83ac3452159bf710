import { expect, test } from 'vitest';
import { clampedCentre, visiblePart } from './viewing.ts';

const file = { width: 1000, height: 800 };

test('the view shows no more of the surround than it has to', () => {
  expect(clampedCentre({ x: 0, y: 0 }, { width: 400, height: 400 }, 1, file)).toEqual({ x: 200, y: 200 });
  expect(clampedCentre({ x: 2000, y: 300 }, { width: 400, height: 400 }, 2, file)).toEqual({ x: 900, y: 300 });
  expect(clampedCentre({ x: 10, y: 10 }, { width: 4000, height: 4000 }, 1, file)).toEqual({ x: 500, y: 400 });
});

test('what is finished in the browser lies in whole pixels inside of the picture, border left out, and is bounded', () => {
  const whole = { margins: { left: 10, top: 10 }, pixels: { width: 980, height: 780 } };
  expect(visiblePart({ x: 200, y: 200 }, { width: 400, height: 401 }, 1, whole)).toEqual({
    left: 0,
    top: 0,
    width: 390,
    height: 391,
  });
  const vast = { margins: { left: 0, top: 0 }, pixels: { width: 9000, height: 9000 } };
  const part = visiblePart({ x: 4500, y: 4500 }, { width: 900, height: 900 }, 0.1, vast);
  expect(part).toEqual({ left: 3700, top: 3700, width: 1600, height: 1600 });
});
