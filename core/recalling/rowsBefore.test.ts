import fc from 'fast-check';
import { expect, test } from 'vitest';
import { rowsBefore, type Undoable } from './index.ts';

const settingsOf = fc.record({ window: fc.integer(), format: fc.constantFrom('jpeg', 'png') });
const somethingDone = fc.record({
  rowId: fc.constantFrom('a', 'b', 'c'),
  wish: fc.constantFrom('set', 'remove'),
  settings: settingsOf,
});

test('whatever was done, every state that there was is found again', () => {
  fc.assert(
    fc.property(fc.array(somethingDone, { maxLength: 40 }), (all) => {
      const rows = new Map<string, Record<string, unknown>>();
      const states = [new Map(rows)];
      const changes: Undoable[] = [];
      for (const { rowId, wish, settings } of all) {
        const before = rows.get(rowId);
        if (wish === 'remove') {
          if (before) changes.push({ kind: 'removed', rowId, before });
          rows.delete(rowId);
        } else if (before) {
          // Only what differs is kept.
          const differing = Object.entries(before).filter(([name, value]) => settings[name as 'window'] !== value);
          changes.push({ kind: 'changed', rowId, before: Object.fromEntries(differing) });
          rows.set(rowId, settings);
        } else {
          changes.push({ kind: 'added', rowId, before: null });
          rows.set(rowId, settings);
        }
        if (changes.length === states.length) states.push(new Map(rows));
      }
      for (const [step, state] of states.entries()) {
        expect(rowsBefore(rows, changes.slice(step).toReversed())).toEqual(state);
      }
    }),
  );
});
