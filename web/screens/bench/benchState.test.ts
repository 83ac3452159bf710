import { finishById } from '@inkwell/core/finishing';
import { type Finish, type Frame, keepNothing, type Mark, plainSettings } from '@inkwell/core/model';
import { sampleOriginal } from '@inkwell/core/testing';
import { describe, expect, test } from 'vitest';
import { createBench, step, unsaved } from './benchState.ts';
import type { Shelf } from './shelf.ts';

const ids = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'] as const;
const frame = (index: 0 | 1, span: number, version = 1): Frame => ({
  id: ids[index],
  projectId: '00000000-0000-4000-8000-0000000000aa',
  originalId: '00000000-0000-4000-8000-0000000000bb',
  placeId: 'sunpane/story',
  ...plainSettings,
  window: { centreX: 500, centreY: 500, span, turn: 0, mirror: false },
  composed: false,
  format: 'jpeg',
  version,
});
const at = (span: number) => ({ window: { centreX: 500, centreY: 500, span, turn: 0, mirror: false } });
const all = (span: number) => ({ ...plainSettings, ...at(span), composed: false, format: 'jpeg' as const });
const unsavedOf = (state: Parameters<typeof unsaved>[0]) => unsaved(state, 'frames');
const others = { projects: [], finishes: [] };

const originalId = sampleOriginal().id;
const picture = (marks: Mark[] = [], version = 1) => sampleOriginal({ marks, version });
const mark = (left: number): Mark => ({
  id: '00000000-0000-4000-8000-0000000000cc',
  name: 'Bin',
  role: 'avoid',
  shape: 'rectangle',
  left,
  top: 10,
  width: 20,
  height: 30,
});

function shelf(): Shelf {
  const kept = new Map<string, string>();
  return { getItem: (key) => kept.get(key) ?? null, setItem: (key, value) => void kept.set(key, value) };
}

function bench(on: Shelf = shelf()) {
  const store = createBench('p', on);
  store.getState().adopt({ ...others, frames: [frame(0, 100), frame(1, 200)], originals: [picture()] });
  return store;
}
const span = (store: ReturnType<typeof bench>, index: 0 | 1) =>
  store.getState().settings.frames[ids[index]]?.window.span;

describe('moving and undoing', () => {
  test('a movement is one step of undo, however many places it passes', () => {
    const store = bench();
    for (const wide of [110, 120, 130]) store.getState().move(ids[0], at(wide).window);
    expect(span(store, 0)).toBe(100);
    expect(unsavedOf(store.getState())).toEqual([]);
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
    store.getState().set('frames', ids[0], at(400));
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
    store.getState().set('frames', ids[0], at(150));
    store.getState().adopt({ ...others, frames: [frame(0, 100), frame(1, 777, 2)], originals: [picture()] });
    step(store, 'undo');
    expect([span(store, 0), span(store, 1)]).toEqual([100, 777]);
    step(store, 'redo');
    expect([span(store, 0), span(store, 1)]).toEqual([150, 777]);
  });

  test('setting a frame to what it is already makes no step', () => {
    const store = bench();
    store.getState().set('frames', ids[0], at(100));
    expect(store.temporal.getState().pastStates).toEqual([]);
  });
});

describe('saving', () => {
  test('what is undone while it is being saved stays undone, whatever the server says meanwhile', () => {
    const store = bench();
    store.getState().set('frames', ids[0], at(150));
    const sent = store.getState().settings.frames[ids[0]];
    if (!sent) throw new Error('The frame is not on the bench.');
    store.getState().send(ids[0], true);
    step(store, 'undo');
    // The project is read again: the change has come there, and its answer not here.
    store.getState().adopt({ ...others, frames: [frame(0, 150, 2), frame(1, 200)], originals: [picture()] });
    expect(span(store, 0)).toBe(100);
    store.getState().arrived('frames', frame(0, 150, 2), sent);
    store.getState().send(ids[0], false);
    expect(unsavedOf(store.getState())).toMatchObject([{ settings: at(100) }]);
  });

  test('what is set waits to be saved until it has arrived', () => {
    const store = bench();
    store.getState().set('frames', ids[1], at(210));
    expect(unsavedOf(store.getState())).toMatchObject([{ row: { id: ids[1], version: 1 }, settings: at(210) }]);
    store.getState().arrived('frames', frame(1, 210, 2), all(210));
    expect(unsavedOf(store.getState())).toEqual([]);
  });

  test('a change made while a save was on its way stays to be saved, on the new version', () => {
    const store = bench();
    store.getState().set('frames', ids[1], at(210));
    store.getState().set('frames', ids[1], at(220));
    store.getState().arrived('frames', frame(1, 210, 2), all(210));
    expect(unsavedOf(store.getState())).toMatchObject([{ row: { version: 2 }, settings: at(220) }]);
  });

  test('what the server settled on replaces what was sent, without a step of undo', () => {
    const store = bench();
    store.getState().set('frames', ids[0], at(5000));
    const steps = store.temporal.getState().pastStates.length;
    store.getState().arrived('frames', frame(0, 4000, 2), all(5000));
    expect(span(store, 0)).toBe(4000);
    expect(store.temporal.getState().pastStates).toHaveLength(steps);
  });

  test('what the server refuses goes back to what is saved, and is not sent again', () => {
    const store = bench();
    store.getState().set('frames', ids[0], at(130));
    const steps = store.temporal.getState().pastStates.length;
    store.getState().putBack('frames', ids[0]);
    expect(span(store, 0)).toBe(100);
    expect(unsavedOf(store.getState())).toEqual([]);
    expect(store.temporal.getState().pastStates).toHaveLength(steps);
  });

  test('an older answer that comes late does not undo a newer save', () => {
    const store = bench();
    store.getState().set('frames', ids[0], at(300));
    store.getState().arrived('frames', frame(0, 300, 2), all(300));
    store.getState().adopt({ ...others, frames: [frame(0, 100, 1), frame(1, 200)], originals: [picture()] });
    expect(span(store, 0)).toBe(300);
  });
});

describe('marks of an original', () => {
  const marks = (store: ReturnType<typeof bench>) => store.getState().settings.originals[originalId]?.marks;

  test('are steps of undo among those of the frames, are saved, and outlive a reload', () => {
    const on = shelf();
    const store = bench(on);
    store.getState().set('originals', originalId, { marks: [mark(10)] });
    store.getState().set('frames', ids[0], at(150));
    expect(unsavedOf(store.getState())).toMatchObject([{ row: { id: ids[0] } }]);
    expect(unsaved(store.getState(), 'originals')).toMatchObject([
      { row: { id: originalId, version: 1 }, settings: { marks: [{ left: 10 }] } },
    ]);
    const { words } = sampleOriginal();
    const sent = { marks: [mark(10)], trim: null, finishId: null, blend: null, words };
    store.getState().arrived('originals', picture([mark(10)], 2), sent);
    expect(unsaved(store.getState(), 'originals')).toEqual([]);

    const after = createBench('p', on);
    after.getState().adopt({ ...others, frames: [frame(0, 100), frame(1, 200)], originals: [picture([mark(10)], 2)] });
    step(after, 'undo');
    expect([span(after, 0), marks(after)]).toEqual([100, [mark(10)]]);
    step(after, 'undo');
    expect(marks(after)).toEqual([]);
    step(after, 'redo');
    expect(marks(after)).toEqual([mark(10)]);
  });

  test('a mark on its way is one step when it rests, and comes before whatever is set or undone next', () => {
    const store = bench();
    store.getState().set('originals', originalId, { marks: [mark(10)] });
    for (const left of [20, 30, 40]) store.getState().moveMark(originalId, mark(0).id, { ...mark(left) });
    expect(marks(store)).toEqual([mark(10)]);
    store.getState().set('frames', ids[0], at(150));
    expect(marks(store)).toEqual([mark(40)]);
    step(store, 'undo');
    step(store, 'undo');
    expect(marks(store)).toEqual([mark(10)]);
    store.getState().moveMark(originalId, mark(0).id, { ...mark(70) });
    step(store, 'undo');
    expect(marks(store)).toEqual([mark(10)]);
  });

  test('that were changed elsewhere too wait for a decision, and frames go on being saved', () => {
    const store = bench();
    store.getState().set('originals', originalId, { marks: [mark(10)] });
    store.getState().conflict('originals', picture([mark(77)], 9));
    store.getState().set('frames', ids[0], at(150));
    expect(unsavedOf(store.getState())).toMatchObject([{}]);
    expect(unsaved(store.getState(), 'originals')).toEqual([]);
    store.getState().takeTheirs('originals', originalId);
    expect(marks(store)).toEqual([mark(77)]);
    expect(store.getState().saved.originals[originalId]?.version).toBe(9);
  });
});

test('many frames set at once are one step of undo', () => {
  const store = bench();
  store.getState().setFrames(new Map(ids.map((id) => [id, { composed: true }])));
  expect(ids.map((id) => store.getState().settings.frames[id]?.composed)).toEqual([true, true]);
  step(store, 'undo');
  expect(ids.map((id) => store.getState().settings.frames[id]?.composed)).toEqual([false, false]);
});

describe('changed elsewhere meanwhile', () => {
  const conflicting = () => {
    const store = bench();
    store.getState().set('frames', ids[0], at(111));
    store.getState().conflict('frames', frame(0, 222, 5));
    return store;
  };

  test('nothing is sent until there is a decision', () => {
    expect(unsavedOf(conflicting().getState())).toEqual([]);
  });

  test('keeping mine saves it on top of theirs', () => {
    const store = conflicting();
    store.getState().keepMine('frames', ids[0]);
    expect(unsavedOf(store.getState())).toMatchObject([{ row: { version: 5 }, settings: at(111) }]);
    expect(store.getState().conflicts.frames).toEqual({});
  });

  test('taking theirs leaves nothing to save, and can be undone', () => {
    const store = conflicting();
    store.getState().takeTheirs('frames', ids[0]);
    expect(unsavedOf(store.getState())).toEqual([]);
    expect(span(store, 0)).toBe(222);
    step(store, 'undo');
    expect(unsavedOf(store.getState())).toMatchObject([{ row: { version: 5 }, settings: at(111) }]);
  });
});

describe('over a reload', () => {
  test('steps of undo and unsaved changes are there again', () => {
    const on = shelf();
    const before = bench(on);
    before.getState().set('frames', ids[0], at(150));
    before.getState().arrived('frames', frame(0, 150, 2), all(150));
    before.getState().set('frames', ids[1], at(260));

    const after = createBench('p', on);
    after.getState().adopt({ ...others, frames: [frame(0, 150, 2), frame(1, 200)], originals: [picture()] });
    expect(unsavedOf(after.getState())).toMatchObject([{ row: { id: ids[1], version: 1 }, settings: at(260) }]);
    step(after, 'undo');
    step(after, 'undo');
    expect([span(after, 0), span(after, 1)]).toEqual([100, 200]);
    step(after, 'redo');
    expect(span(after, 0)).toBe(150);
  });

  test('an unsaved change keeps the version it was made on, so that a conflict is still found', () => {
    const on = shelf();
    bench(on).getState().set('frames', ids[0], at(150));
    const after = createBench('p', on);
    after.getState().adopt({ ...others, frames: [frame(0, 999, 7), frame(1, 200)], originals: [picture()] });
    expect(unsavedOf(after.getState())).toMatchObject([{ row: { version: 1 }, settings: at(150) }]);
  });

  test('frames that are gone are forgotten, and what cannot be read is left aside', () => {
    const on = shelf();
    const store = bench(on);
    store.getState().set('frames', ids[0], at(150));
    store.getState().adopt({ ...others, frames: [frame(1, 200)], originals: [picture()] });
    step(store, 'undo');
    expect(Object.keys(store.getState().settings.frames)).toEqual([ids[1]]);
    on.setItem('inkwell.bench.p', '{"past": "nonsense"');
    expect(createBench('p', on).getState().settings.frames).toEqual({});
  });
});

describe('finishes', () => {
  const projectId = '00000000-0000-4000-8000-0000000000aa';
  const finish = (blend: number, version = 1): Finish => {
    const { treatment } = finishById('crisp', []);
    const id = '00000000-0000-4000-8000-0000000000dd';
    return { id, name: 'Dune light', description: '', treatment: { ...treatment, blend }, version, shipped: false };
  };
  const project = (finishId: string, version = 1) => ({ id: projectId, version, finishId, keeping: keepNothing });
  const known = (finishId: string, finishes: Finish[]) => ({
    frames: [frame(0, 100)],
    originals: [picture()],
    projects: [project(finishId)],
    finishes,
  });
  const ready = (on: Shelf = shelf()) => {
    const store = createBench('p', on);
    store.getState().adopt(known('plain', [finish(0.4)]));
    return store;
  };
  const blend = (store: ReturnType<typeof ready>) => store.getState().settings.finishes[finish(0).id]?.treatment.blend;

  test('choosing one for the project and changing it are steps of undo among the others, also after a reload', () => {
    const on = shelf();
    const store = ready(on);
    store.getState().set('projects', projectId, { finishId: finish(0).id });
    store.getState().set('finishes', finish(0).id, { treatment: finish(0.8).treatment });
    store.getState().set('frames', ids[0], { blend: 0.1 });
    expect(unsaved(store.getState(), 'projects')).toMatchObject([{ settings: { finishId: finish(0).id } }]);
    const after = createBench('p', on);
    after.getState().adopt(known('plain', [finish(0.4)]));
    expect([blend(after), after.getState().settings.frames[ids[0]]?.blend]).toEqual([0.8, 0.1]);
    for (const expected of [
      [0.8, null],
      [0.4, null],
    ]) {
      step(after, 'undo');
      expect([blend(after), after.getState().settings.frames[ids[0]]?.blend]).toEqual(expected);
    }
    step(after, 'undo');
    expect(after.getState().settings.projects[projectId]).toMatchObject({ finishId: 'plain' });
    step(after, 'redo');
    expect(after.getState().settings.projects[projectId]).toMatchObject({ finishId: finish(0).id });
  });

  test('one that was changed elsewhere waits for a decision, and either can be taken', () => {
    for (const [way, expected, left] of [
      ['keepMine', 0.8, 1],
      ['takeTheirs', 0.5, 0],
    ] as const) {
      const store = ready();
      store.getState().set('finishes', finish(0).id, { treatment: finish(0.8).treatment });
      store.getState().conflict('finishes', finish(0.5, 2));
      expect(unsaved(store.getState(), 'finishes')).toEqual([]);
      store.getState()[way]('finishes', finish(0).id);
      expect(blend(store)).toBe(expected);
      expect(unsaved(store.getState(), 'finishes')).toHaveLength(left);
    }
  });

  test('one that was removed elsewhere is gone from the bench, and undo does not bring it back', () => {
    const store = ready();
    store.getState().set('finishes', finish(0).id, { name: 'Dune wind' });
    store.getState().adopt(known('plain', []));
    expect(store.getState().settings.finishes).toEqual({});
    step(store, 'undo');
    expect(store.getState().settings.finishes).toEqual({});
  });
});
