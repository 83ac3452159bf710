import { finishById } from '@inkwell/core/finishing';
import { type Finish, keepNothing, nothingSaid } from '@inkwell/core/model';
import { describe, expect, test } from 'vitest';
import { connectionOf } from './benchState.ts';
import type { Drawer } from './shelf.ts';
import {
  at,
  bench,
  conflicts,
  drawer,
  frame,
  ids,
  mark,
  opened,
  originalId,
  others,
  picture,
  saves,
  span,
  waiting,
} from './testBench.ts';

describe('moving and undoing', () => {
  test('a movement is one step of undo, however many places it passes', () => {
    const store = bench();
    for (const wide of [110, 120, 130]) store.move(ids[0], at(wide).window);
    expect(span(store, 0)).toBe(100);
    expect(waiting(store)).toEqual([]);
    store.commitMove();
    expect(span(store, 0)).toBe(130);
    store.undo();
    expect(span(store, 0)).toBe(100);
    store.redo();
    expect(span(store, 0)).toBe(130);
    store.redo();
    expect(span(store, 0)).toBe(130);
  });

  test('what is set or undone while a movement has not rested yet comes after it', () => {
    const store = bench();
    store.move(ids[0], at(130).window);
    store.set('frames', ids[0], at(400));
    store.commitMove();
    expect(span(store, 0)).toBe(400);
    store.undo();
    expect(span(store, 0)).toBe(130);
    store.move(ids[0], at(90).window);
    store.undo();
    expect(span(store, 0)).toBe(130);
  });

  test('where nothing may be changed, a hand that tries hears so, and all stays as it is', () => {
    const store = bench();
    store.set('frames', ids[0], at(130));
    let tried = 0;
    store.close(() => {
      tried += 1;
    });
    store.move(ids[1], at(400).window);
    store.commitMove();
    store.set('frames', ids[1], at(400));
    store.undo();
    expect(tried).toBe(3);
    expect([span(store, 0), span(store, 1)]).toEqual([130, 200]);
    store.close(null);
    store.undo();
    expect(span(store, 0)).toBe(100);
  });

  test('what a hand holds stays where it is, whatever comes from elsewhere; that is found out when it is saved', () => {
    const store = bench();
    store.move(ids[0], at(120).window);
    store.adopt({ ...others, frames: [frame(0, 555, 2), frame(1, 777, 2)], originals: [picture()] });
    expect([span(store, 0), span(store, 1)]).toEqual([100, 777]);
    store.commitMove();
    expect(span(store, 0)).toBe(120);
    // Sent as made on what was seen: the server says that there is something newer.
    expect(store.getState().saved.frames[ids[0]]?.version).toBe(1);
  });

  test('undoing one frame leaves alone what came from elsewhere for another', () => {
    const store = bench();
    store.set('frames', ids[0], at(150));
    store.adopt({ ...others, frames: [frame(0, 100), frame(1, 777, 2)], originals: [picture()] });
    store.undo();
    expect([span(store, 0), span(store, 1)]).toEqual([100, 777]);
    store.redo();
    expect([span(store, 0), span(store, 1)]).toEqual([150, 777]);
  });

  test('setting a frame to what it is already makes no step', () => {
    const store = bench();
    store.set('frames', ids[0], at(100));
    expect(store.getState().history.past).toEqual([]);
  });
});

describe('saving', () => {
  test('what is undone while it is being saved stays undone, whatever the server says meanwhile', () => {
    const store = bench();
    store.set('frames', ids[0], at(150));
    saves(store, 'frames', frame(0, 150, 2), () => {
      store.undo();
      // The project is read again: the change has come there, and its answer not here.
      store.adopt({ ...others, frames: [frame(0, 150, 2), frame(1, 200)], originals: [picture()] });
      expect(span(store, 0)).toBe(100);
    });
    expect(waiting(store)).toMatchObject([{ row: { version: 2 }, settings: at(100) }]);
  });

  test('what the server settled on replaces what was sent, without a step of undo', () => {
    const store = bench();
    store.set('frames', ids[0], at(5000));
    const steps = store.getState().history.past.length;
    saves(store, 'frames', frame(0, 4000, 2));
    expect(span(store, 0)).toBe(4000);
    expect(store.getState().history.past).toHaveLength(steps);
  });

  test('what the server refuses stays as it was typed and waits, until it is changed or taken back', () => {
    const store = bench();
    store.set('frames', ids[0], at(130));
    store.happen('frames', ids[0], (machine, row) => machine.refused(machine.sent(row), 'No.'));
    expect([span(store, 0), waiting(store)]).toEqual([130, []]);
    store.set('frames', ids[0], at(140));
    expect(waiting(store)).toMatchObject([{ settings: at(140) }]);
    store.happen('frames', ids[0], (machine, row) => machine.refused(machine.sent(row), 'No.'));
    store.takeTheirs('frames', ids[0]);
    expect([span(store, 0), waiting(store)]).toEqual([100, []]);
    store.undo();
    expect(span(store, 0)).toBe(140);
  });
});

describe('marks of an original', () => {
  const marks = (store: ReturnType<typeof bench>) => store.getState().settings.originals[originalId]?.marks;

  test('are steps of undo among those of the frames, are saved, and outlive a reload', () => {
    const on = drawer();
    const store = bench(on);
    store.set('originals', originalId, { marks: [mark(10)] });
    store.set('frames', ids[0], at(150));
    expect(waiting(store)).toMatchObject([{ row: { id: ids[0] } }]);
    expect(waiting(store, 'originals')).toMatchObject([
      { row: { id: originalId, version: 1 }, settings: { marks: [{ left: 10 }] } },
    ]);
    saves(store, 'originals', picture([mark(10)], 2));
    expect(waiting(store, 'originals')).toEqual([]);

    store.flush();
    const after = opened(on);
    after.adopt({ ...others, frames: [frame(0, 100), frame(1, 200)], originals: [picture([mark(10)], 2)] });
    after.undo();
    expect([span(after, 0), marks(after)]).toEqual([100, [mark(10)]]);
    after.undo();
    expect(marks(after)).toEqual([]);
    after.redo();
    expect(marks(after)).toEqual([mark(10)]);
  });

  test('a mark on its way is one step when it rests, and comes before whatever is set or undone next', () => {
    const store = bench();
    store.set('originals', originalId, { marks: [mark(10)] });
    for (const left of [20, 30, 40]) store.moveMark(originalId, mark(0).id, { ...mark(left) });
    expect(marks(store)).toEqual([mark(10)]);
    store.set('frames', ids[0], at(150));
    expect(marks(store)).toEqual([mark(40)]);
    store.undo();
    store.undo();
    expect(marks(store)).toEqual([mark(10)]);
    store.moveMark(originalId, mark(0).id, { ...mark(70) });
    store.undo();
    expect(marks(store)).toEqual([mark(10)]);
  });

  test('that were changed elsewhere too wait for a decision, and frames go on being saved', () => {
    const store = bench();
    store.set('originals', originalId, { marks: [mark(10)] });
    conflicts(store, 'originals', picture([mark(77)], 9));
    store.set('frames', ids[0], at(150));
    expect(waiting(store)).toMatchObject([{}]);
    expect(waiting(store, 'originals')).toEqual([]);
    store.takeTheirs('originals', originalId);
    expect(marks(store)).toEqual([mark(77)]);
    expect(store.getState().saved.originals[originalId]?.version).toBe(9);
  });
});

test('many frames set at once are one step of undo', () => {
  const store = bench();
  store.setFrames(new Map(ids.map((id) => [id, { composed: true }])));
  expect(ids.map((id) => store.getState().settings.frames[id]?.composed)).toEqual([true, true]);
  store.undo();
  expect(ids.map((id) => store.getState().settings.frames[id]?.composed)).toEqual([false, false]);
});

test('what the server has is taken over without a change where it is the same', () => {
  const store = bench();
  const before = store.getState();
  store.adopt({ ...others, frames: [frame(0, 100), frame(1, 200)], originals: [picture()] });
  expect(store.getState()).toBe(before);
});

test('a row that the server has no more is not passed off as saved', () => {
  const store = bench();
  store.set('frames', ids[0], at(150));
  store.happen('frames', ids[0], (machine, row) => machine.wentMissing(machine.sent(row)));
  expect([connectionOf(store.getState()), waiting(store)]).toEqual(['held', []]);
});

describe('changed elsewhere meanwhile', () => {
  const conflicting = () => {
    const store = bench();
    store.set('frames', ids[0], at(111));
    conflicts(store, 'frames', frame(0, 222, 5));
    return store;
  };

  test('nothing is sent until there is a decision', () => {
    expect(waiting(conflicting())).toEqual([]);
  });

  test('keeping mine saves it on top of theirs', () => {
    const store = conflicting();
    store.keepMine('frames', ids[0]);
    expect(waiting(store)).toMatchObject([{ row: { version: 5 }, settings: at(111) }]);
  });

  test('taking theirs leaves nothing to save, and can be undone', () => {
    const store = conflicting();
    store.takeTheirs('frames', ids[0]);
    expect(waiting(store)).toEqual([]);
    expect(span(store, 0)).toBe(222);
    store.undo();
    expect(waiting(store)).toMatchObject([{ row: { version: 5 }, settings: at(111) }]);
  });
});

describe('over a reload', () => {
  test('steps of undo and unsaved changes are there again', () => {
    const on = drawer();
    const before = bench(on);
    before.set('frames', ids[0], at(150));
    saves(before, 'frames', frame(0, 150, 2));
    before.set('frames', ids[1], at(260));
    before.flush();

    const after = opened(on);
    after.adopt({ ...others, frames: [frame(0, 150, 2), frame(1, 200)], originals: [picture()] });
    expect(waiting(after)).toMatchObject([{ row: { id: ids[1], version: 1 }, settings: at(260) }]);
    after.undo();
    after.undo();
    expect([span(after, 0), span(after, 1)]).toEqual([100, 200]);
    after.redo();
    expect(span(after, 0)).toBe(150);
  });

  test('an unsaved change keeps the version it was made on, so that a conflict is still found', () => {
    const on = drawer();
    const before = bench(on);
    before.set('frames', ids[0], at(150));
    before.flush();
    const after = opened(on);
    after.adopt({ ...others, frames: [frame(0, 999, 7), frame(1, 200)], originals: [picture()] });
    expect(waiting(after)).toMatchObject([{ row: { version: 1 }, settings: at(150) }]);
  });

  test('a frame that has gone leaves its change behind, and what cannot be read is left aside', () => {
    const on = drawer();
    const store = bench(on);
    store.set('frames', ids[0], at(150));
    store.adopt({ frames: [frame(1, 200)] });
    store.undo();
    expect(Object.keys(store.getState().settings.frames)).toEqual([ids[1]]);
    store.adopt({ frames: [frame(0, 100), frame(1, 200)] });
    expect(span(store, 0)).toBe(150);
    on.setItem('inkwell.bench.p.one', '{"past": "nonsense"');
    expect(opened(on).getState().history).toEqual({ past: [], future: [] });
  });
});

describe('finishes', () => {
  const projectId = '00000000-0000-4000-8000-0000000000aa';
  const finish = (blend: number, version = 1): Finish => {
    const { treatment } = finishById('crisp', []);
    const id = '00000000-0000-4000-8000-0000000000dd';
    return { id, name: 'Dune light', description: '', treatment: { ...treatment, blend }, version, shipped: false };
  };
  const project = (finishId: string, version = 1) => ({
    id: projectId,
    version,
    finishId,
    keeping: keepNothing,
    composing: 'seen' as const,
    lettering: [],
    posting: nothingSaid,
    pins: {},
    pattern: '{name}',
    usualPlaces: [],
    usualAim: null,
  });
  const known = (finishId: string, finishes: Finish[]) => ({
    frames: [frame(0, 100)],
    originals: [picture()],
    projects: [project(finishId)],
    finishes,
  });
  const ready = (on: Drawer = drawer()) => {
    const store = opened(on);
    store.adopt(known('plain', [finish(0.4)]));
    return store;
  };
  const blend = (store: ReturnType<typeof ready>) => store.getState().settings.finishes[finish(0).id]?.treatment.blend;

  test('choosing one for the project and changing it are steps of undo among the others, also after a reload', () => {
    const on = drawer();
    const store = ready(on);
    store.set('projects', projectId, { finishId: finish(0).id });
    store.set('finishes', finish(0).id, { treatment: finish(0.8).treatment });
    store.set('frames', ids[0], { blend: 0.1 });
    expect(waiting(store, 'projects')).toMatchObject([{ settings: { finishId: finish(0).id } }]);
    store.flush();
    const after = opened(on);
    after.adopt(known('plain', [finish(0.4)]));
    expect([blend(after), after.getState().settings.frames[ids[0]]?.blend]).toEqual([0.8, 0.1]);
    for (const expected of [
      [0.8, null],
      [0.4, null],
    ]) {
      after.undo();
      expect([blend(after), after.getState().settings.frames[ids[0]]?.blend]).toEqual(expected);
    }
    after.undo();
    expect(after.getState().settings.projects[projectId]).toMatchObject({ finishId: 'plain' });
    after.redo();
    expect(after.getState().settings.projects[projectId]).toMatchObject({ finishId: finish(0).id });
  });

  test('one that was changed elsewhere waits for a decision, and either can be taken', () => {
    for (const [way, expected, left] of [
      ['keepMine', 0.8, 1],
      ['takeTheirs', 0.5, 0],
    ] as const) {
      const store = ready();
      store.set('finishes', finish(0).id, { treatment: finish(0.8).treatment });
      conflicts(store, 'finishes', finish(0.5, 2));
      expect(waiting(store, 'finishes')).toEqual([]);
      store[way]('finishes', finish(0).id);
      expect(blend(store)).toBe(expected);
      expect(waiting(store, 'finishes')).toHaveLength(left);
    }
  });

  test('one that was removed elsewhere is gone from the bench, and undo does not bring it back', () => {
    const store = ready();
    store.set('finishes', finish(0).id, { name: 'Dune wind' });
    store.adopt(known('plain', []));
    expect(store.getState().settings.finishes).toEqual({});
    store.undo();
    expect(store.getState().settings.finishes).toEqual({});
  });
});
