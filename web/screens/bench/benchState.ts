import { type Frame, type FrameSettings, FrameSettingsSchema, type Window } from '@inkwell/core/model';
import { z } from 'zod';
import { temporal } from 'zundo';
import { createStore } from 'zustand';

type ById<Value> = Record<string, Value>;

/** What the bench of one project knows about its frames, ahead of what the server has. */
export interface Bench {
  /** How every frame is set now: the part that undo and redo go over. */
  settings: ById<FrameSettings>;
  /** A window while a hand moves it: seen everywhere, but neither saved nor a step of undo until it rests. */
  moving: { frameId: string; window: Window } | null;
  /** The frames as the server has them. A frame whose settings differ is still to be saved. */
  saved: ById<Frame>;
  /** Frames that were changed elsewhere while they were changed here, as they are there. */
  conflicts: ById<Frame>;
  connection: 'fine' | 'saving' | 'offline';

  /** Takes over what the server has, except where this bench has changes of its own. */
  adopt(frames: readonly Frame[]): void;
  move(frameId: string, window: Window): void;
  /** Ends a movement: what was moved becomes a step of undo and is saved. */
  rest(): void;
  set(frameId: string, change: Partial<FrameSettings>): void;
  /** A save has arrived. `sent` is what was saved; what changed meanwhile stays to be saved. */
  arrived(frame: Frame, sent: FrameSettings): void;
  conflict(frame: Frame): void;
  keepMine(frameId: string): void;
  takeTheirs(frameId: string): void;
  connect(connection: Bench['connection']): void;
}

const stepsKept = 60;
const settingsOf = ({ window, format }: Frame): FrameSettings => ({ window, format });

const sameSettings = (a: FrameSettings, b: FrameSettings) =>
  a.format === b.format &&
  a.window.centreX === b.window.centreX &&
  a.window.centreY === b.window.centreY &&
  a.window.span === b.window.span;

/** What of a bench outlives a reload: unsaved changes with the version they were made on, and the steps of undo. */
const KeptSchema = z.object({
  unsaved: z.record(z.string(), z.object({ settings: FrameSettingsSchema, version: z.int() })),
  past: z.array(z.record(z.string(), FrameSettingsSchema)),
  future: z.array(z.record(z.string(), FrameSettingsSchema)),
});

/** Where a bench is kept between reloads; `localStorage` has this shape. */
export type Shelf = Pick<Storage, 'getItem' | 'setItem'>;

export function createBench(projectId: string, shelf: Shelf) {
  const key = `inkwell.bench.${projectId}`;
  const kept = readKept(shelf.getItem(key));

  const store = createStore<Bench>()(
    temporal(
      (set, get) => {
        /** Changes settings without making a step of undo. */
        const settle = (change: Partial<Bench>) => {
          const history = store.temporal.getState();
          history.pause();
          set(change);
          history.resume();
        };
        const without = <Value>(record: ById<Value>, id: string) =>
          Object.fromEntries(Object.entries(record).filter(([one]) => one !== id));
        return {
          settings: {},
          moving: null,
          saved: {},
          conflicts: {},
          connection: 'fine',

          adopt(frames) {
            const before = get();
            const settings: ById<FrameSettings> = {};
            const saved: ById<Frame> = {};
            for (const frame of frames) {
              const mine = before.settings[frame.id];
              const known = before.saved[frame.id];
              const left = kept.unsaved[frame.id];
              if (mine && known && !sameSettings(mine, settingsOf(known))) {
                settings[frame.id] = mine;
                saved[frame.id] = known;
              } else if (!known && left && !sameSettings(left.settings, settingsOf(frame))) {
                settings[frame.id] = left.settings;
                saved[frame.id] = { ...frame, version: left.version };
              } else {
                const newer = known && known.version > frame.version ? known : frame;
                settings[frame.id] = settingsOf(newer);
                saved[frame.id] = newer;
              }
            }
            settle({ settings, saved });
          },
          move(frameId, window) {
            set({ moving: { frameId, window } });
          },
          rest() {
            const { moving } = get();
            if (!moving) return;
            settle({ moving: null });
            get().set(moving.frameId, { window: moving.window });
          },
          set(frameId, change) {
            // What comes after a movement must not be overtaken by it.
            get().rest();
            const { settings } = get();
            const now = settings[frameId];
            if (!now) return;
            const next = { ...now, ...change };
            if (!sameSettings(now, next)) set({ settings: { ...settings, [frameId]: next } });
          },
          arrived(frame, sent) {
            const { settings, saved } = get();
            const now = settings[frame.id];
            const settled = now && sameSettings(now, sent) ? { ...settings, [frame.id]: settingsOf(frame) } : settings;
            settle({ settings: settled, saved: { ...saved, [frame.id]: frame } });
          },
          conflict(frame) {
            settle({ conflicts: { ...get().conflicts, [frame.id]: frame } });
          },
          keepMine(frameId) {
            const { conflicts, saved } = get();
            const theirs = conflicts[frameId];
            if (theirs) settle({ conflicts: without(conflicts, frameId), saved: { ...saved, [frameId]: theirs } });
          },
          takeTheirs(frameId) {
            const { conflicts, saved } = get();
            const theirs = conflicts[frameId];
            if (!theirs) return;
            get().set(frameId, settingsOf(theirs));
            settle({ conflicts: without(conflicts, frameId), saved: { ...saved, [frameId]: theirs } });
          },
          connect(connection) {
            if (get().connection !== connection) settle({ connection });
          },
        };
      },
      {
        partialize: ({ settings }) => ({ settings }),
        equality: (a, b) => a.settings === b.settings,
        // A step holds only the frames it changed: undoing it must not touch what came from elsewhere meanwhile.
        diff: (from, to) => {
          const changed = Object.keys(to.settings ?? {}).flatMap((id) => {
            const was = from.settings?.[id];
            return was && was !== to.settings?.[id] ? [[id, was] as const] : [];
          });
          return changed.length > 0 ? { settings: Object.fromEntries(changed) } : null;
        },
        limit: stepsKept,
      },
    ),
  );

  store.temporal.setState({
    pastStates: kept.past.map((settings) => ({ settings })),
    futureStates: kept.future.map((settings) => ({ settings })),
  });
  const keep = () => {
    const { settings, saved } = store.getState();
    const unsaved = Object.values(saved).flatMap((frame) => {
      const now = settings[frame.id];
      return now && !sameSettings(now, settingsOf(frame))
        ? [[frame.id, { settings: now, version: frame.version }] as const]
        : [];
    });
    const { pastStates, futureStates } = store.temporal.getState();
    const steps = (states: Partial<Pick<Bench, 'settings'>>[]) =>
      states.flatMap((state) => (state.settings ? [state.settings] : []));
    shelf.setItem(
      key,
      JSON.stringify({ unsaved: Object.fromEntries(unsaved), past: steps(pastStates), future: steps(futureStates) }),
    );
  };
  store.subscribe((now, before) => {
    if (now.settings !== before.settings || now.saved !== before.saved) keep();
  });
  store.temporal.subscribe(keep);
  return store;
}

/** Goes one step back or forward. */
export function step(store: BenchStore, direction: 'undo' | 'redo'): void {
  store.getState().rest();
  const before = store.getState().settings;
  const history = store.temporal.getState();
  history[direction]();
  const { settings, saved } = store.getState();
  if (settings === before) return;
  // The step brought back only the frames it holds, and perhaps some that are no longer in the project.
  const merged = Object.fromEntries(Object.entries({ ...before, ...settings }).filter(([id]) => saved[id]));
  history.pause();
  store.setState({ settings: merged, moving: null });
  history.resume();
}

export type BenchStore = ReturnType<typeof createBench>;

function readKept(text: string | null): z.infer<typeof KeptSchema> {
  const nothing = { unsaved: {}, past: [], future: [] };
  if (text === null) return nothing;
  try {
    return KeptSchema.parse(JSON.parse(text));
  } catch {
    // Kept by another version of the program: its steps of undo mean nothing here, and what was saved is on the server.
    return nothing;
  }
}

/** Frames that are set otherwise than the server has them, leaving out those that wait for a decision. */
export function unsavedFrames({ settings, saved, conflicts }: Bench): { frame: Frame; settings: FrameSettings }[] {
  return Object.values(saved).flatMap((frame) => {
    const now = settings[frame.id];
    return now && !conflicts[frame.id] && !sameSettings(now, settingsOf(frame)) ? [{ frame, settings: now }] : [];
  });
}
