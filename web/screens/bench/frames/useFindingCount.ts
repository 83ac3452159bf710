import { overdueDays } from '@inkwell/core/bookkeeping';
import { settledPlaceOf } from '@inkwell/core/framing';
import { type Frame, type Measured, type OpenProject, sheetSlugOf } from '@inkwell/core/model';
import { useDeferredValue, useMemo } from 'react';
import { seenOf, useSeen } from '../../../api/library/seen.ts';
import { usePlaces, useSpecBook } from '../../../api/library/specBook.ts';
import { useUnhurried } from '../../../parts/many/useUnhurried.ts';
import { today } from '../../../parts/today.ts';
import type { BenchState } from '../state/benchState.ts';
import { useBench, useBenchStore, useFinishing, useLiveWords } from '../state/useBench.ts';
import { savedBasis } from './benchFrame.ts';
import { composedFrom } from './composed.ts';
import { type Finishing, withWords } from './finishing.ts';
import { frameFacts } from './frameFacts.ts';

/**
 * How many frames of a project have findings, as they are set on the bench now, or were a moment ago: nobody waits for that. A sheet whose
 * numbers are too old counts once, however many frames it has.
 */
export function useFindingCount(
  project: OpenProject,
  measured: ReadonlyMap<string, Measured>,
): { count: number; isDone: boolean } {
  const places = usePlaces(project);
  const { data: known } = useSeen(project);
  const set = useBench((bench) => bench.settings);
  const saved = useBench((bench) => bench.saved);
  const phases = useBench((bench) => bench.phases);
  const moving = useBench((bench) => bench.moving);
  const settled = useFinishing(useBenchStore());
  const words = useLiveWords();
  // All of one moment: what was measured is only true of the settings that it was measured of.
  const now = useMemo(() => {
    const finishing = withWords(settled, words);
    return { project, places, set, saved, phases, moving, finishing, measured, known };
  }, [project, places, set, saved, phases, moving, settled, words, measured, known]);
  const moment = useDeferredValue(now);
  const work = useMemo(() => findingCountOf(moment), [moment]);
  const { results, isDone } = useUnhurried(moment.project.frames, work);
  const old = useOldSheets(project);
  return { count: results.filter((count) => count > 0).length + old, isDone };
}

/** How many sheets of a project's frames were not checked for too long. */
function useOldSheets(project: OpenProject): number {
  const { data: sheets = [] } = useSpecBook(project);
  const used = useMemo(() => new Set(project.frames.map(({ placeId }) => sheetSlugOf(placeId))), [project.frames]);
  return sheets.filter((sheet) => used.has(sheet.slug) && overdueDays(sheet, today()) !== null).length;
}

interface Moment {
  project: OpenProject;
  places: ReturnType<typeof usePlaces>;
  set: BenchState['settings'];
  saved: BenchState['saved'];
  phases: BenchState['phases'];
  moving: BenchState['moving'];
  finishing: Finishing;
  measured: ReadonlyMap<string, Measured>;
  known: ReturnType<typeof useSeen>['data'];
}

/** How many findings a frame has at a moment. */
function findingCountOf(moment: Moment): (frame: Frame) => number {
  const { project, places, set, saved, phases, moving, finishing, measured, known } = moment;
  const pictures = new Map(
    project.originals.map((kept) => {
      const seen = seenOf(known, kept.id)?.analysis ?? null;
      const original = composedFrom({ ...kept, ...set.originals[kept.id] }, seen, finishing.project.composing);
      return [kept.id, { original, seen }];
    }),
  );
  return (frame) => {
    const picture = pictures.get(frame.originalId);
    const at = places.get(frame.placeId);
    const settings = set.frames[frame.id];
    if (!picture || !at || !settings) return 0;
    const one = { frame, ...picture, at: settledPlaceOf(at, picture.original, settings), finishing };
    const basis = savedBasis({ settings: set, saved, phases, moving }, one, settings);
    return frameFacts(one, settings, measured.get(frame.id), basis).findings.length;
  };
}
