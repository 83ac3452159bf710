import { plainFinishId } from '@inkwell/core/finishing';
import type { FontBook } from '@inkwell/core/lettering';
import {
  type Finish,
  type FrameSettings,
  keepNothing,
  type Lettering,
  nothingSaid,
  type OpenProject,
  type Window,
} from '@inkwell/core/model';
import { useQueryClient } from '@tanstack/react-query';
import { createContext, startTransition, useContext, useEffect, useLayoutEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { useMay } from '../../../api/access/workspaces.ts';
import { useFontBook } from '../../../fonts/useFontBook.ts';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';
import type { Finishing } from '../frames/finishing.ts';
import type { Bench } from './bench.ts';
import type { BenchState } from './benchState.ts';
import { openBench } from './openBench.ts';

const BenchContext = createContext<Bench | null>(null);
export const BenchProvider = BenchContext.Provider;

export function useBenchStore(): Bench {
  const store = useContext(BenchContext);
  if (!store) throw new Error('The bench is used outside of its screen.');
  return store;
}

export function useBench<Value>(select: (bench: BenchState) => Value): Value {
  return useStore(useBenchStore(), select);
}

/** The window of a frame while it is moved. */
export const movingWindow = ({ moving }: BenchState, frameId: string): Window | undefined =>
  moving?.kind === 'window' && moving.frameId === frameId ? moving.window : undefined;

const noLettering: Lettering = [];

/** What is laid over a project's pictures, as it is written at this moment. */
export const letteringOf = ({ moving, settings }: BenchState): Lettering =>
  moving?.kind === 'lettering' ? moving.lettering : (Object.values(settings.projects)[0]?.lettering ?? noLettering);

/** How a frame is set now, a movement under way included. */
export function useSettings(frameId: string): FrameSettings | undefined {
  const settings = useBench((bench) => bench.settings.frames[frameId]);
  const window = useBench((bench) => movingWindow(bench, frameId));
  const hands = useBench(({ moving }) =>
    moving?.kind === 'hands' && moving.frameId === frameId ? moving.hands : undefined,
  );
  return useMemo(() => {
    if (settings && window) return { ...settings, window, composed: false };
    return settings && hands ? { ...settings, hands } : settings;
  }, [settings, window, hands]);
}

/**
 * What is laid over a project's pictures, followed when there is time for it: whoever types sees the wall follow at once, and all else
 * after it.
 */
function useUnhurriedLettering(store: Bench): Lettering {
  const [lettering, setLettering] = useState(() => letteringOf(store.getState()));
  useEffect(() => {
    const follow = () => startTransition(() => setLettering(letteringOf(store.getState())));
    follow();
    return store.subscribe(follow);
  }, [store]);
  return lettering;
}

/** The words of a project and the fonts that they are set in, at once. */
export function useLiveWords(): { lettering: Lettering; book: FontBook | null } {
  const lettering = useBench(letteringOf);
  const book = useFontBook(lettering);
  return useMemo(() => ({ lettering, book }), [lettering, book]);
}

/** The finishes and the project's choice, as they are set now on a bench; words that are being typed follow a little later. */
export function useFinishing(store: Bench): Finishing {
  const projects = useStore(store, (bench) => bench.settings.projects);
  const rows = useStore(store, (bench) => bench.saved.finishes);
  const settings = useStore(store, (bench) => bench.settings.finishes);
  const lettering = useUnhurriedLettering(store);
  const book = useFontBook(lettering);
  return useMemo(
    () => ({
      project: {
        ...(Object.values(projects)[0] ?? {
          finishId: plainFinishId,
          keeping: keepNothing,
          composing: 'seen',
          posting: nothingSaid,
        }),
        lettering,
      },
      finishes: Object.values(rows).map((row) => ({ ...row, ...settings[row.id] })),
      book,
    }),
    [projects, rows, settings, lettering, book],
  );
}

const benches = new Map<string, Bench>();
let isStorageTold = false;

/** The bench of a project: opened once, it lives and saves as long as the page does, and is fed with what the server has. */
export function useProjectBench(project: OpenProject, finishes: readonly Finish[] | undefined): Bench {
  const client = useQueryClient();
  const bench = benches.get(project.id) ?? openBench(project.id, client);
  benches.set(project.id, bench);
  useLayoutEffect(() => {
    const { frames, originals } = project;
    bench.adopt({ frames, originals, projects: [project], finishes });
  }, [bench, project, finishes]);
  const note = useUndoNote();
  const mayChange = useMay('editor');
  useLayoutEffect(() => {
    const tell = () =>
      note.warned(
        'You look here, and change nothing',
        'An owner of this workspace can make you an editor.',
        'only looking',
      );
    bench.close(mayChange ? null : tell);
  }, [bench, mayChange, note]);
  const outlivesReload = useStore(bench, (state) => state.outlivesReload);
  useEffect(() => {
    if (outlivesReload || isStorageTold) return;
    isStorageTold = true;
    note.warned(
      'This browser keeps nothing for this page',
      'Its storage is full or switched off. Changes are saved as usual. Steps of undo, and changes that are not sent yet, do not outlive a reload.',
    );
  }, [outlivesReload, note]);
  return bench;
}
