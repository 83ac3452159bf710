import { expect, test } from 'vitest';
import type { Place } from '../model/index.ts';
import { samplePlace } from '../testing/index.ts';
import { dimensionsWords, formatsWords, groupWords, limitWords } from './placeWords.ts';

const place = (over: Partial<Place>) =>
  samplePlace({
    width: 1200,
    height: 675,
    formats: ['jpeg', 'webp'],
    limit: { bytes: 1_572_864, unit: 'MiB' },
    ...over,
  });

test('a place is told in numbers that people write', () => {
  expect(dimensionsWords(place({}))).toBe('1200 × 675');
  expect(dimensionsWords(place({ height: { min: 400, max: 3000 } }))).toBe('1200 × 400–3000');
  expect(formatsWords(place({}))).toBe('JPEG, WebP');
  expect(limitWords(place({}))).toBe('1.5 MiB');
  expect(limitWords(place({ group: { kind: 'panels', min: 2, max: 20 } }))).toBe('1.5 MiB each');
});

test('pieces are told with their order as people count, from one', () => {
  expect(groupWords({ kind: 'panels', min: 2, max: 12 })).toBe('2 to 12 panels, uploaded in reading order');
  expect(groupWords({ kind: 'block', columns: 2, rows: 2, gap: 0.015, postingOrder: [0, 2, 1, 3] })).toBe(
    '2 × 2 tiles, gaps of 1.5\u00a0% of a tile’s width; uploaded in the order 1, 3, 2, 4'.replace('’', "'"),
  );
  expect(
    groupWords({ kind: 'quilt', columns: 3, minRows: 1, maxRows: 6, gap: 0.01, posting: 'last tile first' }),
  ).toContain('last tile first');
});
