import { expect, test } from 'vitest';
import { intersection } from '../geometry/index.ts';
import { samplePlace } from '../testing/index.ts';
import { coveredRects, openRect } from './index.ts';

const output = { width: 1080, height: 1920 };
const area = (left: number, top: number, width: number, height: number) => ({
  left,
  top,
  width,
  height,
  shape: 'rectangle' as const,
  reason: 'controls',
});
const place = (covered: ReturnType<typeof area>[], shownPart?: ReturnType<typeof area>) =>
  samplePlace({
    purpose: 'story',
    ...output,
    covered,
    ...(shownPart ? { shownPart } : {}),
  });

test('the open part of a frame is the largest rectangle that nothing covers', () => {
  expect(openRect(place([]), output)).toEqual({ left: 0, top: 0, ...output });
  const story = place([area(0, 0, 1080, 240), area(0, 1600, 1080, 320)]);
  expect(openRect(story, output)).toEqual({ left: 0, top: 240, width: 1080, height: 1360 });
  const clip = place([area(0, 1500, 1080, 420), area(940, 0, 140, 1920)]);
  expect(openRect(clip, output)).toEqual({ left: 0, top: 0, width: 940, height: 1500 });
  const badge = place([area(940, 1866, 130, 44)]);
  expect(openRect(badge, output)).toEqual({ left: 0, top: 0, width: 1080, height: 1866 });
  for (const one of [story, clip, badge])
    for (const covered of coveredRects(one, output)) {
      const common = intersection(covered, openRect(one, output));
      expect(common.width * common.height).toBe(0);
    }
});

test('it stays within what is always shown, and covers beyond the frame do not count', () => {
  const phones = area(270, 0, 540, 1920);
  expect(openRect(place([area(0, 0, 1080, 200)], phones), output)).toEqual({
    left: 270,
    top: 200,
    width: 540,
    height: 1720,
  });
  const outside = place([area(-400, -400, 300, 300), area(-50, 1900, 200, 200)]);
  expect(coveredRects(outside, output)).toEqual([{ left: 0, top: 1900, width: 150, height: 20, reason: 'controls' }]);
});
