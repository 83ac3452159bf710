import type { Frame, FrameSettings, OpenProject, Original, Window } from '@inkwell/core/model';
import { useQueryClient } from '@tanstack/react-query';
import { createContext, useContext, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import { useStore } from 'zustand';
import { ApiError } from '../../api/client.ts';
import { saveFrame } from '../../api/frames.ts';
import { saveOriginal } from '../../api/originals.ts';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { type Bench, type BenchStore, createBench, type Kind, unsaved } from './benchState.ts';

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

/** The bench of a project: kept while the page lives, fed with what the server has, and saved by itself. */
export function useProjectBench(project: OpenProject): BenchStore {
  let store = benches.get(project.id);
  if (!store) {
    store = createBench(project.id, localStorage);
    benches.set(project.id, store);
  }
  const bench = store;
  useLayoutEffect(() => bench.getState().adopt(project), [bench, project]);
  useSaving(bench, project.id);
  return bench;
}

/** One save under way: what to send, and what to do with the answer. */
interface Save {
  kind: Kind;
  id: string;
  send: () => Promise<void>;
}

/** Everything that is to be sent now, as saves. Marks come first: frames are composed from them. */
function savesOf(
  store: BenchStore,
  adopt: (row: Partial<Record<'frame', Frame> & Record<'original', Original>>) => void,
): Save[] {
  const { frames, originals } = unsaved(store.getState());
  return [
    ...originals.map(({ row, settings }) => ({
      kind: 'originals' as const,
      id: row.id,
      async send() {
        const result = await saveOriginal(row.id, row.version, settings);
        if ('elsewhere' in result) return store.getState().conflict('originals', result.elsewhere);
        store.getState().arrived('originals', result.done, settings);
        adopt({ original: result.done });
      },
    })),
    ...frames.map(({ row, settings }) => ({
      kind: 'frames' as const,
      id: row.id,
      async send() {
        const result = await saveFrame(row.id, row.version, settings);
        if ('elsewhere' in result) return store.getState().conflict('frames', result.elsewhere);
        store.getState().arrived('frames', result.done, settings);
        adopt({ frame: result.done });
      },
    })),
  ];
}

/** Sends every change as soon as it rests, one save a row at a time. What cannot be sent is kept and tried again. */
function useSaving(store: BenchStore, projectId: string) {
  const client = useQueryClient();
  const note = useUndoNote();
  const refused = useRef(note.failed);
  refused.current = note.failed;
  useEffect(() => {
    const underWay = new Set<string>();
    let retry: ReturnType<typeof setTimeout> | undefined;

    const replaced = <Row extends { id: string }>(rows: Row[], row: Row | undefined) =>
      row ? rows.map((one) => (one.id === row.id ? row : one)) : rows;
    const adopt: Parameters<typeof savesOf>[1] = ({ frame, original }) => {
      client.setQueryData<OpenProject>(
        ['project', projectId],
        (project) =>
          project && {
            ...project,
            frames: replaced(project.frames, frame),
            originals: replaced(project.originals, original),
          },
      );
      void client.invalidateQueries({ queryKey: ['measured', projectId] });
    };

    const saveAll = () => {
      for (const { kind, id, send } of savesOf(store, adopt)) {
        if (underWay.has(id)) continue;
        underWay.add(id);
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
            underWay.delete(id);
            if (store.getState().connection === 'offline') return;
            saveAll();
            if (underWay.size === 0) store.getState().connect('fine');
          });
      }
      if (underWay.size > 0 && store.getState().connection === 'offline') store.getState().connect('saving');
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
