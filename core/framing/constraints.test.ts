import { expect, test } from 'vitest';
import { intersection } from '../geometry/index.ts';
import type { Area, Place } from '../model/index.ts';
import { sampleArea, sampleOriginal, samplePlace } from '../testing/index.ts';
import { openRect } from './constraints.ts';
import { coveredRects, plainContentArea } from './index.ts';

const output = { width: 1080, height: 1920 };

const place = (covered: Area[], shownPart?: Area) =>
  samplePlace({
    purpose: 'story',
    ...output,
    covered,
    ...(shownPart ? { shownPart } : {}),
  });

const openOf = (one: Place) => openRect(plainContentArea(one, sampleOriginal()));

test('the open part of a frame is the largest rectangle that nothing covers', () => {
  expect(openOf(place([]))).toEqual({ left: 0, top: 0, ...output });
  const story = place([sampleArea(0, 0, 1080, 240), sampleArea(0, 1600, 1080, 320)]);
  expect(openOf(story)).toEqual({ left: 0, top: 240, width: 1080, height: 1360 });
  const clip = place([sampleArea(0, 1500, 1080, 420), sampleArea(940, 0, 140, 1920)]);
  expect(openOf(clip)).toEqual({ left: 0, top: 0, width: 940, height: 1500 });
  const badge = place([sampleArea(940, 1866, 130, 44)]);
  expect(openOf(badge)).toEqual({ left: 0, top: 0, width: 1080, height: 1866 });
  for (const one of [story, clip, badge])
    for (const covered of coveredRects(one, output)) {
      const common = intersection(covered, openOf(one));
      expect(common.width * common.height).toBe(0);
    }
});

test('it stays within what is always shown, and covers beyond the frame do not count', () => {
  const phones = sampleArea(270, 0, 540, 1920);
  expect(openOf(place([sampleArea(0, 0, 1080, 200)], phones))).toEqual({
    left: 270,
    top: 200,
    width: 540,
    height: 1720,
  });
  const outside = place([sampleArea(-400, -400, 300, 300), sampleArea(-50, 1900, 200, 200)]);
  expect(coveredRects(outside, output)).toEqual([{ left: 0, top: 1900, width: 150, height: 20, reason: 'controls' }]);
});
