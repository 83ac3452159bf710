import { expect, test } from 'vitest';
import { budgetBytes } from './index.ts';

test('the budget is the limit less headroom, rounded down and never nothing', () => {
  expect(budgetBytes({ bytes: 500_000 })).toBe(485_000);
  expect(budgetBytes({ bytes: 1_572_864 }, 0)).toBe(1_572_864);
  expect(budgetBytes({ bytes: 333 }, 0.1)).toBe(299);
  expect(budgetBytes({ bytes: 1 }, 0.99)).toBe(1);
});
