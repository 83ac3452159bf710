import { plainFinishId } from '@inkwell/core/finishing';
import { type Finish, type FrameSettings, keepNothing, type OpenProject, type Window } from '@inkwell/core/model';
import { useQueryClient } from '@tanstack/react-query';
import equal from 'fast-deep-equal';
import { createContext, useContext, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import { useStore } from 'zustand';
import { ApiError, type Saved } from '../../api/client.ts';
import { type Finishes, saveFinish } from '../../api/finishes.ts';
import { saveFrame } from '../../api/frames.ts';
import { saveOriginal } from '../../api/originals.ts';
import { saveProject } from '../../api/projects.ts';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import {
  type Bench,
  type BenchStore,
  createBench,
  type Kind,
  type Kinds,
  kinds,
  settingsOf,
  unsaved,
} from './benchState.ts';
import type { Finishing } from './finishing.ts';

const retryMs = 2500;
const benches = new Map<string, BenchStore>();
const BenchContext = createContext<BenchStore | null>(null);
export const BenchProvider = BenchContext.Provider;

export function useBenchStore(): BenchStore {
  const store = useContext(BenchContext);
  if (!store) throw new Error('The bench is used outside of its screen.');
  return store;
}

export function useBench<Value>(select: (bench: Bench) => Value): Value {
  return useStore(useBenchStore(), select);
}

/** The window of a frame while it is moved. */
export const movingWindow = ({ moving }: Bench, frameId: string): Window | undefined =>
  moving?.kind === 'window' && moving.frameId === frameId ? moving.window : undefined;

/** How a frame is set now, a movement under way included. */
export function useSettings(frameId: string): FrameSettings | undefined {
  const settings = useBench((bench) => bench.settings.frames[frameId]);
  const window = useBench((bench) => movingWindow(bench, frameId));
  return useMemo(() => (settings && window ? { ...settings, window, composed: false } : settings), [settings, window]);
}

/** The finishes and the project's choice, as they are set now on a bench, or as the server has them. */
export function useFinishing(store: BenchStore, which: 'settings' | 'saved'): Finishing {
  const projects = useStore(store, (bench) => bench[which].projects);
  const rows = useStore(store, (bench) => bench.saved.finishes);
  const settings = useStore(store, (bench) => bench[which].finishes);
  return useMemo(
    () => ({
      project: Object.values(projects)[0] ?? { finishId: plainFinishId, keeping: keepNothing },
      finishes: Object.values(rows).map((row) => ({ ...row, ...settings[row.id] })),
    }),
    [projects, rows, settings],
  );
}

/** The bench of a project: kept while the page lives, fed with what the server has, and saved by itself. */
export function useProjectBench(project: OpenProject, finishes: readonly Finish[] | undefined): BenchStore {
  let store = benches.get(project.id);
  if (!store) {
    store = createBench(project.id, localStorage);
    benches.set(project.id, store);
  }
  const bench = store;
  useLayoutEffect(() => {
    const { frames, originals } = project;
    // Finishes that are still on their way must not be taken for gone, or what undo holds of them would be.
    const known = finishes ?? Object.values(bench.getState().saved.finishes);
    bench.getState().adopt({ frames, originals, projects: [project], finishes: known });
  }, [bench, project, finishes]);
  useSaving(bench, project.id);
  return bench;
}

/** One save under way: what to send, and what to do with the answer. */
interface Save {
  kind: Kind;
  id: string;
  send: () => Promise<void>;
}

/** How a row of each kind is sent. */
const senders: {
  [K in Kind]: (id: string, version: number, settings: Kinds[K]['settings']) => Promise<Saved<Kinds[K]['row']>>;
} = {
  frames: saveFrame,
  originals: saveOriginal,
  projects: saveProject,
  finishes: saveFinish,
};

/** Everything that is to be sent now, as saves. Frames come last: they follow from all the rest. */
function savesOf(store: BenchStore, adopt: <K extends Kind>(kind: K, row: Kinds[K]['row']) => void): Save[] {
  const savesOfKind = <K extends Kind>(kind: K): Save[] =>
    unsaved(store.getState(), kind).map(({ row, settings }) => ({
      kind,
      id: row.id,
      async send() {
        const result = await senders[kind](row.id, row.version, settings);
        // Sent twice because the first answer was lost, it meets itself.
        const isOwn = 'elsewhere' in result && equal(settingsOf[kind](result.elsewhere), settings);
        if ('elsewhere' in result && !isOwn) return store.getState().conflict(kind, result.elsewhere);
        const now = 'elsewhere' in result ? result.elsewhere : result.done;
        store.getState().arrived(kind, now, settings);
        adopt(kind, now);
      },
    }));
  return kinds.flatMap((kind) => savesOfKind(kind));
}

/** Sends every change as soon as it rests, one save a row at a time. What cannot be sent is kept and tried again. */
function useSaving(store: BenchStore, projectId: string) {
  const client = useQueryClient();
  const note = useUndoNote();
  const refused = useRef(note.failed);
  refused.current = note.failed;
  useEffect(() => {
    let retry: ReturnType<typeof setTimeout> | undefined;

    const replaced = <Row extends { id: string }>(rows: Row[], row: Row) =>
      rows.map((one) => (one.id === row.id ? { ...one, ...row } : one));
    const intoProject = (change: (project: OpenProject) => Partial<OpenProject>) =>
      client.setQueryData<OpenProject>(
        ['project', projectId],
        (project) => project && { ...project, ...change(project) },
      );
    const takers: { [K in Kind]: (row: Kinds[K]['row']) => void } = {
      frames: (row) => intoProject((project) => ({ frames: replaced(project.frames, row) })),
      originals: (row) => intoProject((project) => ({ originals: replaced(project.originals, row) })),
      projects: ({ finishId, keeping, version }) => intoProject(() => ({ finishId, keeping, version })),
      finishes: (row) =>
        client.setQueryData<Finishes>(
          ['finishes'],
          (known) => known && { ...known, finishes: replaced(known.finishes, row) },
        ),
    };
    const adopt = <K extends Kind>(kind: K, row: Kinds[K]['row']) => {
      takers[kind](row);
      void client.invalidateQueries({ queryKey: ['measured', projectId] });
      if (kind === 'projects') void client.invalidateQueries({ queryKey: ['finishes'] });
    };

    const saveAll = () => {
      for (const { kind, id, send } of savesOf(store, adopt)) {
        if (store.getState().sending.has(id)) continue;
        store.getState().send(id, true);
        store.getState().connect('saving');
        send()
          .catch((error: unknown) => {
            if (error instanceof ApiError && error.status === 404) {
              void client.invalidateQueries({ queryKey: ['project', projectId] });
              return;
            }
            if (error instanceof ApiError && error.status >= 400 && error.status < 500) {
              // Sent again it would be refused again: the person is told why, and the bench shows what is saved.
              store.getState().putBack(kind, id);
              refused.current(error);
              return;
            }
            store.getState().connect('offline');
            clearTimeout(retry);
            retry = setTimeout(saveAll, retryMs);
          })
          .finally(() => {
            store.getState().send(id, false);
            if (store.getState().connection === 'offline') return;
            saveAll();
            if (store.getState().sending.size === 0) store.getState().connect('fine');
          });
      }
      if (store.getState().sending.size > 0 && store.getState().connection === 'offline')
        store.getState().connect('saving');
    };
    saveAll();
    const unsubscribe = store.subscribe((now, before) => {
      if ((now.settings !== before.settings || now.saved !== before.saved) && now.connection !== 'offline') saveAll();
    });
    return () => {
      unsubscribe();
      clearTimeout(retry);
    };
  }, [store, projectId, client]);
}
