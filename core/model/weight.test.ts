import { expect, test } from 'vitest';
import { formatLimit, formatWeight, PlaceSchema, SpecSheetSchema } from './index.ts';

test('a weight is told in the unit of its limit: decimal and binary are never mixed up', () => {
  expect(formatWeight(1_500_000, 'MB')).toBe('1.50 MB');
  expect(formatWeight(1_572_864, 'MiB')).toBe('1.50 MiB');
  expect(formatWeight(1_500_000, 'MiB')).toBe('1.43 MiB');
  expect(formatWeight(499_600, 'kB')).toBe('500 kB');
  expect(formatWeight(41_300, 'MB')).toBe('41 kB');
  expect([999, 1].map((bytes) => formatWeight(bytes, 'MiB'))).toEqual(['999 bytes', '1 byte']);
  expect(formatLimit({ bytes: 1_572_864, unit: 'MiB' })).toBe('1.5 MiB');
  expect(formatLimit({ bytes: 8_000_000, unit: 'MB' })).toBe('8 MB');
});

test('a place that could not be honoured to the pixel is not taken into a sheet', () => {
  const place = {
    slug: 'a',
    name: 'A',
    purpose: 'post',
    width: 800,
    height: 600,
    formats: ['jpeg'],
    limit: { bytes: 1000, unit: 'kB' },
  };
  expect(PlaceSchema.parse(place)).toMatchObject({ shape: 'rectangle', covered: [], shownWidths: [] });
  for (const wrong of [
    { width: 7 },
    { height: 20_001 },
    { width: 800.5 },
    { formats: [] },
    { formats: ['bmp'] },
    { slug: 'Not a slug' },
    { limit: { bytes: 0, unit: 'kB' } },
    { limit: { bytes: 9, unit: 'GB' } },
  ]) {
    expect(PlaceSchema.safeParse({ ...place, ...wrong }).success).toBe(false);
  }
  const sheet = {
    slug: 's',
    name: 'S',
    kind: 'made up',
    checkedOn: '2026-11-25',
    afterUpload: { longEdge: 1080, quality: 75, chroma: '4:2:0' },
    places: [place],
  };
  expect(SpecSheetSchema.safeParse(sheet).success).toBe(true);
  expect(SpecSheetSchema.safeParse({ ...sheet, checkedOn: 'yesterday' }).success).toBe(false);
});
