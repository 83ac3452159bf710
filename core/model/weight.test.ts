import { expect, test } from 'vitest';
import { bytesOf, formatLimit, formatWeight } from './index.ts';

test('a weight is told in the unit of its limit: decimal and binary are never mixed up', () => {
  expect(formatWeight(1_500_000, 'MB')).toBe('1.50 MB');
  expect(formatWeight(1_572_864, 'MiB')).toBe('1.50 MiB');
  expect(formatWeight(1_500_000, 'MiB')).toBe('1.43 MiB');
  expect(formatWeight(499_600, 'kB')).toBe('500 kB');
  expect(formatWeight(41_300, 'MB')).toBe('41 kB');
  expect([999, 1].map((bytes) => formatWeight(bytes, 'MiB'))).toEqual(['999 bytes', '1 byte']);
  expect([999_999, 1_000_000].map((bytes) => formatWeight(bytes, 'MB'))).toEqual(['1000 kB', '1.00 MB']);
  expect([104_857, 104_858].map((bytes) => formatWeight(bytes, 'MiB'))).toEqual(['105 kB', '0.10 MiB']);
  expect(formatWeight(1000, 'kB')).toBe('1 kB');
  expect([bytesOf(1.5, 'MB'), bytesOf(1.5, 'MiB'), bytesOf(2.0004, 'kB')]).toEqual([1_500_000, 1_572_864, 2000]);
  expect(formatLimit({ bytes: 1_572_864, unit: 'MiB' })).toBe('1.5 MiB');
  expect(formatLimit({ bytes: 8_000_000, unit: 'MB' })).toBe('8 MB');
});
