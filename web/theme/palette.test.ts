import { describe, expect, test } from 'vitest';
import { palette, surrounds } from './palette.ts';

/** Relative luminance of `#rrggbb` (WCAG 2.2). */
function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const share = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * (r ?? 0) + 0.7152 * (g ?? 0) + 0.0722 * (b ?? 0);
}

function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return ((light ?? 0) + 0.05) / ((dark ?? 0) + 0.05);
}

describe.each(['ground', 'sheet'] as const)('on %s', (paper) => {
  test.each(['ink', 'secondInk', 'action', 'cautionInk', 'blocker', 'selection'] as const)(
    '%s can be read: at least 4.5 to 1',
    (text) => {
      expect(contrast(palette[text], palette[paper])).toBeGreaterThanOrEqual(4.5);
    },
  );

  test('the colour of a caution is only used for dots and lines: at least 3 to 1', () => {
    expect(contrast(palette.caution, palette[paper])).toBeGreaterThanOrEqual(3);
  });
});

test('pictures are judged on neutral grey, never on the paper', () => {
  for (const grey of Object.values(surrounds)) {
    expect(new Set([grey.slice(1, 3), grey.slice(3, 5), grey.slice(5, 7)]).size).toBe(1);
  }
});

test('white text on the colour of an action can be read', () => {
  expect(contrast('#ffffff', palette.action)).toBeGreaterThanOrEqual(4.5);
});
