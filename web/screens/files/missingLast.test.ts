import { expect, test } from 'vitest';
import { missingLast } from './missingLast.ts';

test('what is not measured yet comes last, up and down', () => {
  const rows = [null, 40, 0, null, 75];
  const compare = missingLast<number | null>((row) => row);
  expect([...rows].sort((a, b) => compare(a, b, 'ascend'))).toEqual([0, 40, 75, null, null]);
  expect([...rows].sort((a, b) => -compare(a, b, 'descend'))).toEqual([75, 40, 0, null, null]);
});
