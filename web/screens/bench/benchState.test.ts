import type { Frame } from '@inkwell/core/model';
import { describe, expect, test } from 'vitest';
import { createBench, type Shelf, step, unsavedFrames } from './benchState.ts';

const ids = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'] as const;
const frame = (index: 0 | 1, span: number, version = 1): Frame => ({
  id: ids[index],
  projectId: '00000000-0000-4000-8000-0000000000aa',
  originalId: '00000000-0000-4000-8000-0000000000bb',
  placeId: 'sunpane/story',
  window: { centreX: 500, centreY: 500, span },
  format: 'jpeg',
  version,
});
const at = (span: number) => ({ window: { centreX: 500, centreY: 500, span } });

function shelf(): Shelf {
  const kept = new Map<string, string>();
  return { getItem: (key) => kept.get(key) ?? null, setItem: (key, value) => void kept.set(key, value) };
}

function bench(on: Shelf = shelf()) {
  const store = createBench('p', on);
  store.getState().adopt([frame(0, 100), frame(1, 200)]);
  return store;
}
const span = (store: ReturnType<typeof bench>, index: 0 | 1) => store.getState().settings[ids[index]]?.window.span;

describe('moving and undoing', () => {
  test('a movement is one step of undo, however many places it passes', () => {
    const store = bench();
    for (const wide of [110, 120, 130]) store.getState().move(ids[0], at(wide).window);
    expect(span(store, 0)).toBe(100);
    expect(unsavedFrames(store.getState())).toEqual([]);
    store.getState().rest();
    expect(span(store, 0)).toBe(130);
    step(store, 'undo');
    expect(span(store, 0)).toBe(100);
    step(store, 'redo');
    expect(span(store, 0)).toBe(130);
    step(store, 'redo');
    expect(span(store, 0)).toBe(130);
  });

  test('what is set or undone while a movement has not rested yet comes after it', () => {
    const store = bench();
    store.getState().move(ids[0], at(130).window);
    store.getState().set(ids[0], at(400));
    store.getState().rest();
    expect(span(store, 0)).toBe(400);
    step(store, 'undo');
    expect(span(store, 0)).toBe(130);
    store.getState().move(ids[0], at(90).window);
    step(store, 'undo');
    expect(span(store, 0)).toBe(130);
  });

  test('undoing one frame leaves alone what came from elsewhere for another', () => {
    const store = bench();
    store.getState().set(ids[0], at(150));
    store.getState().adopt([frame(0, 100), frame(1, 777, 2)]);
    step(store, 'undo');
    expect([span(store, 0), span(store, 1)]).toEqual([100, 777]);
    step(store, 'redo');
    expect([span(store, 0), span(store, 1)]).toEqual([150, 777]);
  });

  test('setting a frame to what it is already makes no step', () => {
    const store = bench();
    store.getState().set(ids[0], at(100));
    expect(store.temporal.getState().pastStates).toEqual([]);
  });
});

describe('saving', () => {
  test('what is set waits to be saved until it has arrived', () => {
    const store = bench();
    store.getState().set(ids[1], at(210));
    expect(unsavedFrames(store.getState())).toMatchObject([{ frame: { id: ids[1], version: 1 }, settings: at(210) }]);
    store.getState().arrived(frame(1, 210, 2), { ...at(210), format: 'jpeg' });
    expect(unsavedFrames(store.getState())).toEqual([]);
  });

  test('a change made while a save was on its way stays to be saved, on the new version', () => {
    const store = bench();
    store.getState().set(ids[1], at(210));
    store.getState().set(ids[1], at(220));
    store.getState().arrived(frame(1, 210, 2), { ...at(210), format: 'jpeg' });
    expect(unsavedFrames(store.getState())).toMatchObject([{ frame: { version: 2 }, settings: at(220) }]);
  });

  test('what the server settled on replaces what was sent, without a step of undo', () => {
    const store = bench();
    store.getState().set(ids[0], at(5000));
    const steps = store.temporal.getState().pastStates.length;
    store.getState().arrived(frame(0, 4000, 2), { ...at(5000), format: 'jpeg' });
    expect(span(store, 0)).toBe(4000);
    expect(store.temporal.getState().pastStates).toHaveLength(steps);
  });

  test('an older answer that comes late does not undo a newer save', () => {
    const store = bench();
    store.getState().set(ids[0], at(300));
    store.getState().arrived(frame(0, 300, 2), { ...at(300), format: 'jpeg' });
    store.getState().adopt([frame(0, 100, 1), frame(1, 200)]);
    expect(span(store, 0)).toBe(300);
  });
});

describe('changed elsewhere meanwhile', () => {
  const conflicting = () => {
    const store = bench();
    store.getState().set(ids[0], at(111));
    store.getState().conflict(frame(0, 222, 5));
    return store;
  };

  test('nothing is sent until there is a decision', () => {
    expect(unsavedFrames(conflicting().getState())).toEqual([]);
  });

  test('keeping mine saves it on top of theirs', () => {
    const store = conflicting();
    store.getState().keepMine(ids[0]);
    expect(unsavedFrames(store.getState())).toMatchObject([{ frame: { version: 5 }, settings: at(111) }]);
    expect(store.getState().conflicts).toEqual({});
  });

  test('taking theirs leaves nothing to save, and can be undone', () => {
    const store = conflicting();
    store.getState().takeTheirs(ids[0]);
    expect(unsavedFrames(store.getState())).toEqual([]);
    expect(span(store, 0)).toBe(222);
    step(store, 'undo');
    expect(unsavedFrames(store.getState())).toMatchObject([{ frame: { version: 5 }, settings: at(111) }]);
  });
});

describe('over a reload', () => {
  test('steps of undo and unsaved changes are there again', () => {
    const on = shelf();
    const before = bench(on);
    before.getState().set(ids[0], at(150));
    before.getState().arrived(frame(0, 150, 2), { ...at(150), format: 'jpeg' });
    before.getState().set(ids[1], at(260));

    const after = createBench('p', on);
    after.getState().adopt([frame(0, 150, 2), frame(1, 200)]);
    expect(unsavedFrames(after.getState())).toMatchObject([{ frame: { id: ids[1], version: 1 }, settings: at(260) }]);
    step(after, 'undo');
    step(after, 'undo');
    expect([span(after, 0), span(after, 1)]).toEqual([100, 200]);
    step(after, 'redo');
    expect(span(after, 0)).toBe(150);
  });

  test('an unsaved change keeps the version it was made on, so that a conflict is still found', () => {
    const on = shelf();
    bench(on).getState().set(ids[0], at(150));
    const after = createBench('p', on);
    after.getState().adopt([frame(0, 999, 7), frame(1, 200)]);
    expect(unsavedFrames(after.getState())).toMatchObject([{ frame: { version: 1 }, settings: at(150) }]);
  });

  test('frames that are gone are forgotten, and what cannot be read is left aside', () => {
    const on = shelf();
    const store = bench(on);
    store.getState().set(ids[0], at(150));
    store.getState().adopt([frame(1, 200)]);
    step(store, 'undo');
    expect(Object.keys(store.getState().settings)).toEqual([ids[1]]);
    on.setItem('inkwell.bench.p', '{"past": "nonsense"');
    expect(createBench('p', on).getState().settings).toEqual({});
  });
});
