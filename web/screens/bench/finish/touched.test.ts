import { expect, test } from 'vitest';
import { touchedWords } from './touched.ts';

test('a change of a finish says whom it touches', () => {
  expect(touchedWords(0, 0)).toBe('No frame uses it.');
  expect(touchedWords(1, 1)).toBe('A change touches one frame here.');
  expect(touchedWords(24, 30)).toBe('A change touches 24 frames here and 6 frames of other projects.');
});
