import { plainSettings, plainWeighing, type WeightUnit } from '@inkwell/core/model';
import { samplePlace } from '@inkwell/core/testing';
import { expect, test } from 'vitest';
import { bisecting, isOf, seriesOf } from './curve/series.ts';
import { tickWords, weightTicks } from './curve/weightTicks.ts';
import { similarityWords } from './similarityWords.ts';
import { weighingWords } from './weighingWords.ts';

test('numbers are bisected: all of them once, and the first few lie far apart', () => {
  const order = bisecting(5, 95);
  expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: 91 }, (_, at) => at + 5));
  expect(order.slice(0, 3)).toEqual([50, 27, 73]);
  expect(bisecting(3, 2)).toEqual([]);
});

test('a place’s lines begin with the frame’s own format, and PNG has a line more for its palettes', () => {
  const lines = seriesOf(samplePlace({ formats: ['jpeg', 'png', 'webp'] }), 'webp', plainWeighing);
  expect(lines.map(({ key }) => key)).toEqual(['webp', 'jpeg', 'png', 'palette']);
  const dithered = { format: 'png', colours: 'dithered palette', chroma: 'measured' } as const;
  expect(lines.filter((line) => isOf(line, dithered)).map(({ key }) => key)).toEqual(['palette']);
});

test('marks of an axis are round in the unit in which they are said, and never too many', () => {
  const said = (from: number, to: number, unit: WeightUnit, most = 6) =>
    weightTicks(from, to, unit, most).map((bytes) => tickWords(bytes, unit));
  expect(said(55_000, 4_700_000, 'MiB')).toEqual(['0.1 MiB', '0.2 MiB', '0.5 MiB', '1 MiB', '2 MiB']);
  expect(said(20_000, 9_300_000, 'MB', 5)).toEqual(['30 kB', '100 kB', '300 kB', '1 MB', '3 MB']);
  expect(said(200_000, 260_000, 'kB')).toEqual(['200 kB', '220 kB', '240 kB', '260 kB']);
  expect(weightTicks(1, 3e8, 'MB', 3)).toHaveLength(3);
});

test('what is set otherwise than usual is said, and nothing else', () => {
  const settings = { ...plainSettings, format: 'png' as const };
  expect(weighingWords(settings)).toBe('PNG');
  const weighing = {
    ...plainWeighing,
    colours: 'palette' as const,
    aim: { kind: 'no heavier than it needs' as const, level: 'look' as const },
    mostQuality: 60,
  };
  expect(weighingWords({ ...settings, weighing, dimensions: { width: 600, height: 640 } })).toBe(
    'PNG, palette, no heavier: Look, quality at most 60, 600 × 640 px',
  );
});

test('a similarity is told by what a person sees of it', () => {
  const worst = { left: 0, top: 0, width: 32, height: 32, similarity: 95 };
  const words = (overall: number, flatAreaError = 0) =>
    similarityWords({ overall, worst, flatAreaError, blockError: 0, regions: [] });
  expect([words(99), words(97.5), words(99, 2.5), words(95.5), words(93), words(80)]).toEqual([
    'nothing moves',
    'nothing is missing',
    'nothing is missing',
    'good in passing',
    'it is seen',
    'broken',
  ]);
});
