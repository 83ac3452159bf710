import type { FrameSettings, OpenProject } from '@inkwell/core/model';
import { useQueryClient } from '@tanstack/react-query';
import { createContext, useContext, useEffect, useLayoutEffect, useMemo } from 'react';
import { useStore } from 'zustand';
import { ApiError } from '../../api/client.ts';
import { saveFrame } from '../../api/frames.ts';
import { type Bench, type BenchStore, createBench, unsavedFrames } from './benchState.ts';

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

/** How a frame is set now, a movement under way included. */
export function useSettings(frameId: string): FrameSettings | undefined {
  const settings = useBench((bench) => bench.settings[frameId]);
  const window = useBench((bench) => (bench.moving?.frameId === frameId ? bench.moving.window : undefined));
  return useMemo(() => (settings && window ? { ...settings, window } : settings), [settings, window]);
}

/** The bench of a project: kept while the page lives, fed with what the server has, and saved by itself. */
export function useProjectBench(project: OpenProject): BenchStore {
  let store = benches.get(project.id);
  if (!store) {
    store = createBench(project.id, localStorage);
    benches.set(project.id, store);
  }
  const bench = store;
  useLayoutEffect(() => bench.getState().adopt(project.frames), [bench, project.frames]);
  useSaving(bench, project.id);
  return bench;
}

/** Sends every change as soon as it rests, one save a frame at a time. What cannot be sent is kept and tried again. */
function useSaving(store: BenchStore, projectId: string) {
  const client = useQueryClient();
  useEffect(() => {
    const underWay = new Set<string>();
    let retry: ReturnType<typeof setTimeout> | undefined;

    const saveAll = () => {
      for (const { frame, settings } of unsavedFrames(store.getState())) {
        if (underWay.has(frame.id)) continue;
        underWay.add(frame.id);
        store.getState().connect('saving');
        saveFrame(frame.id, frame.version, settings)
          .then((result) => {
            if ('elsewhere' in result) {
              store.getState().conflict(result.elsewhere);
              return;
            }
            store.getState().arrived(result.done, settings);
            client.setQueryData<OpenProject>(
              ['project', projectId],
              (project) =>
                project && {
                  ...project,
                  frames: project.frames.map((one) => (one.id === result.done.id ? result.done : one)),
                },
            );
            void client.invalidateQueries({ queryKey: ['weights', projectId] });
          })
          .catch((error: unknown) => {
            if (error instanceof ApiError && error.status === 404) {
              void client.invalidateQueries({ queryKey: ['project', projectId] });
              return;
            }
            store.getState().connect('offline');
            clearTimeout(retry);
            retry = setTimeout(saveAll, retryMs);
          })
          .finally(() => {
            underWay.delete(frame.id);
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
