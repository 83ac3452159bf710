import type { OpenProject } from '@inkwell/core/model';
import { QueryClient } from '@tanstack/react-query';
import { expect, test } from 'vitest';
import { areStale, staleAfter } from './stale.ts';

const [one, two] = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'] as const;
const projectId = '00000000-0000-4000-8000-00000000000a';

test('what was told is asked for where it is newer, new or gone, and not where this page has it already', () => {
  const known = [
    { id: one, version: 3 },
    { id: two, version: 1 },
  ];
  expect(areStale(known, { rows: [[one, 3]] })).toBe(false);
  expect(areStale(known, { rows: [[one, 2]] })).toBe(false);
  expect(areStale(known, { rows: [[one, 4]] })).toBe(true);
  expect(areStale(known, { rows: [[projectId, 1]] })).toBe(true);
  expect(areStale(known, { rows: [[two, null]] })).toBe(true);
  expect(areStale(known, { rows: [[projectId, null]] })).toBe(false);
  expect(areStale(known, { rows: null })).toBe(true);
  // Of many only the sum of all versions is told.
  expect([3, 4, 5].map((total) => areStale(known, { rows: null, total }))).toEqual([false, false, true]);
  expect(areStale(undefined, { rows: null })).toBe(false);
});

test('a change of frames asks for their project alone, where it is open', () => {
  const client = new QueryClient();
  const change = { kind: 'frames' as const, projectId, rows: [[one, 2] as [string, number]] };
  expect(staleAfter(client, change)).toEqual([['projects']]);
  client.setQueryData(['project', projectId], { frames: [{ id: one, version: 1 }] } as OpenProject);
  expect(staleAfter(client, change)).toContainEqual(['project', projectId]);
  client.setQueryData(['project', projectId], { frames: [{ id: one, version: 2 }] } as OpenProject);
  expect(staleAfter(client, change)).toEqual([['projects']]);
});
