import { plainSettings } from '@inkwell/core/model';
import { expect, test } from 'vitest';
import { Bench } from './bench.ts';
import { looseSettingsOf } from './kinds.ts';
import { Shelf } from './shelf.ts';
import {
  at,
  bench,
  bulk,
  drawer,
  frame,
  ids,
  nothingKept,
  opened,
  originalId,
  saves,
  span,
  waiting,
} from './testBench.ts';

test('what an earlier version kept is read, with what it did not know as it is on the server', () => {
  const on = drawer();
  const { weighing } = plainSettings;
  const old = { ...at(150), weighing: { aim: weighing.aim }, cutOut: 'yes', forgotten: 3 };
  const none = { originals: {}, projects: {}, finishes: {} };
  const steps = [{ frames: { [ids[1]]: { ...at(120), format: 'never heard of' } }, ...none }];
  const unsaved = { frames: { [ids[0]]: { settings: old, version: 1 } }, ...none };
  on.setItem('inkwell.bench.p', JSON.stringify({ unsaved, past: steps, future: [] }));
  const store = bench(on);
  expect(store.getState().settings.frames[ids[0]]).toEqual(looseSettingsOf.frames(frame(0, 150)));
  store.undo();
  expect(store.getState().settings.frames[ids[1]]).toEqual(looseSettingsOf.frames(frame(1, 120)));
});

test('steps are bounded by number and weight, and the project that was opened longest ago goes first', () => {
  const on = drawer();
  on.setItem('inkwell.bench.older.one', JSON.stringify({ ...nothingKept, written: 1, past: [bulk(1_200_000)] }));
  on.setItem('inkwell.bench.newer.one', JSON.stringify({ ...nothingKept, written: 2, past: [bulk(1_200_000)] }));
  const store = bench(on);
  for (let wide = 1; wide <= 320; wide += 1) store.set('frames', ids[0], at(1000 + wide));
  store.flush();
  expect(store.getState().history.past).toHaveLength(300);
  expect([on.getItem('inkwell.bench.older.one'), on.getItem('inkwell.bench.newer.one')?.length]).toEqual([
    null,
    expect.any(Number),
  ]);
  const altText = 'A long sentence. '.repeat(100);
  for (let step = 0; step < 300; step += 1) {
    store.set('originals', originalId, { words: { credit: `${step}`, copyright: '', altText: altText + step } });
    store.set('frames', ids[0], at(step + 1));
  }
  store.flush();
  const kept = on.getItem('inkwell.bench.p.one') ?? '';
  expect(kept.length).toBeLessThanOrEqual(1_000_000);
  expect(opened(on).getState().history.past.length).toBeGreaterThan(100);
});

test('storage that is refused or full costs only what outlives a reload', () => {
  const refused = new Bench(
    new Shelf(
      'p',
      () => {
        throw new Error('SecurityError');
      },
      'one',
    ),
  );
  refused.adopt({ frames: [frame(0, 100)] });
  refused.set('frames', ids[0], at(150));
  expect([refused.getState().outlivesReload, waiting(refused)]).toMatchObject([false, [{ settings: at(150) }]]);
  refused.undo();
  expect(span(refused, 0)).toBe(100);

  const on = drawer();
  const full = bench({
    ...on,
    setItem() {
      throw new Error('QuotaExceededError');
    },
  });
  let heard = 0;
  full.subscribe(() => {
    heard += 1;
  });
  full.set('frames', ids[0], at(150));
  full.set('frames', ids[1], at(250));
  expect([full.getState().outlivesReload, waiting(full).length, full.getState().history.past.length]).toEqual([
    false,
    2,
    2,
  ]);
  expect(heard).toBeGreaterThanOrEqual(2);
});

test('two pages keep their own changes of one frame; what a closed page has left is taken up', () => {
  const on = drawer();
  const closed = bench(on);
  closed.set('frames', ids[0], at(150));
  closed.flush();
  const other = opened(on, 'two');
  other.adopt({ frames: [frame(0, 100), frame(1, 200)] });
  expect(span(other, 0)).toBe(150);
  other.set('frames', ids[0], at(160));
  other.flush();
  const first = opened(on);
  first.adopt({ frames: [frame(0, 100), frame(1, 200)] });
  expect([span(first, 0), span(other, 0)]).toEqual([160, 160]);
});

test('pages that are opened one after the other go on with the steps of the last, and keep them once', () => {
  const on = drawer();
  for (const [index, page] of ['one', 'two', 'three'].entries()) {
    const store = opened(on, page);
    store.adopt({ frames: [frame(0, 100 + index, index + 1), frame(1, 200)] });
    expect(store.getState().history.past).toHaveLength(index);
    store.set('frames', ids[0], at(101 + index));
    saves(store, 'frames', frame(0, 101 + index, index + 2));
    store.flush();
    expect(on.length).toBe(1);
  }
});
