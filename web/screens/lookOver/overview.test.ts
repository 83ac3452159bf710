import { type Finding, type PlaceOfNetwork, plainSettings, type Verdict } from '@inkwell/core/model';
import { sampleOriginal, samplePlace } from '@inkwell/core/testing';
import { expect, test } from 'vitest';
import type { ProjectFrame } from '../projectFrames.ts';
import { cellBeside, cellOf, isShown, nextWanted, overviewOf, rowEnd } from './overview.ts';

const original = (id: string) => ({ ...sampleOriginal(), id, name: id });
const places = new Map(
  ['a', 'b', 'c', 'unused'].map((slug): [string, PlaceOfNetwork] => [
    slug,
    { id: slug, network: { slug: 'one', name: 'One' } as PlaceOfNetwork['network'], place: samplePlace({ slug }) },
  ]),
);
const caution = { level: 'caution', text: 'Soft' } as Finding;
const frame = (originalId: string, placeId: string, verdict: Verdict | null = null, findings: Finding[] = []) =>
  ({
    frame: { ...plainSettings, id: `${originalId}${placeId}`, originalId, placeId, verdict },
    original: original(originalId),
    at: places.get(placeId),
    planHash: 'now',
    findings,
  }) as unknown as ProjectFrame;

/**
 * | | a | b | c |
 * |---|---|---|---|
 * | 1 | fine | | fine, of another plan |
 * | 2 | | left out, of another plan | soft |
 */
const overview = overviewOf(
  [
    frame('2', 'c', null, [caution]),
    frame('1', 'a', { is: 'fine', plan: 'now' }),
    frame('1', 'c', { is: 'fine', plan: 'then' }),
    frame('2', 'b', { is: 'leave out', plan: 'then' }),
  ],
  [original('1'), original('without'), original('2')],
  places,
  ({ verdict }) => verdict,
);

test('pictures stand in rows and places in columns; what was said counts as long as the frame is the same', () => {
  expect(overview.columns.map(({ place }) => place.slug)).toEqual(['a', 'b', 'c']);
  expect(overview.rows.map(({ original: { id }, cells }) => [id, ...cells.map((cell) => cell?.verdict)])).toEqual([
    ['1', 'fine', undefined, null],
    ['2', undefined, 'leave out', null],
  ]);
  expect(overview.rows[0]?.cells[2]?.isOutdated).toBe(true);
  const all = overview.rows.flatMap(({ cells }) => cells.filter((cell) => cell !== null));
  const ids = (show: keyof typeof isShown) => all.filter(isShown[show]).map(({ one }) => one.frame.id);
  expect([ids('to look over'), ids('left out'), ids('with findings')]).toEqual([['1c', '2c'], ['2b'], ['2c']]);
});

test('keys go from frame to frame over gaps, and what is said goes on to the next that is wanted', () => {
  expect(cellOf(overview, '2b')).toEqual({ row: 1, column: 1 });
  expect(cellOf(overview, 'gone')).toBeNull();
  const right = { row: 0, column: 1 };
  expect(cellBeside(overview, { row: 0, column: 0 }, right)).toEqual({ row: 0, column: 2 });
  expect(cellBeside(overview, { row: 0, column: 2 }, right)).toEqual({ row: 0, column: 2 });
  expect(cellBeside(overview, { row: 0, column: 0 }, { row: 1, column: 0 })).toEqual({ row: 0, column: 0 });
  expect([rowEnd(overview, 1, 'first'), rowEnd(overview, 1, 'last')]).toEqual([
    { row: 1, column: 1 },
    { row: 1, column: 2 },
  ]);
  const wanted = isShown['to look over'];
  expect(nextWanted(overview, { row: 0, column: 0 }, wanted)).toEqual({ row: 0, column: 2 });
  expect(nextWanted(overview, { row: 1, column: 2 }, wanted)).toEqual({ row: 0, column: 2 });
  expect(nextWanted(overview, { row: 0, column: 0 }, isShown['look again'])).toBeNull();
});
