import type { Measured, OpenProject } from '@inkwell/core/model';
import { useMemo } from 'react';
import { seenOf, useSeen } from '../../../api/seen.ts';
import { usePlaces } from '../../../api/specBook.ts';
import { useBench, useBenchStore, useFinishing } from '../state/useBench.ts';
import { savedBasis } from './benchFrame.ts';
import { composedFrom } from './composed.ts';
import { frameFacts } from './frameFacts.ts';

/** How many frames of a project have findings, as they are set on the bench now. */
export function useFindingCount(project: OpenProject, measured: readonly Measured[] | undefined): number {
  const places = usePlaces();
  const { data: known } = useSeen(project.id);
  const set = useBench((bench) => bench.settings);
  const saved = useBench((bench) => bench.saved);
  const phases = useBench((bench) => bench.phases);
  const moving = useBench((bench) => bench.moving);
  const finishing = useFinishing(useBenchStore());
  return useMemo(
    () =>
      project.frames.filter((frame) => {
        const kept = project.originals.find((one) => one.id === frame.originalId);
        const at = places.get(frame.placeId);
        const settings = set.frames[frame.id];
        if (!kept || !at || !settings) return false;
        const seen = seenOf(known, kept.id)?.analysis ?? null;
        const original = composedFrom({ ...kept, ...set.originals[kept.id] }, seen, finishing.project.composing);
        const mine = measured?.find((one) => one.frameId === frame.id);
        const one = { frame, original, seen, at, finishing };
        const basis = savedBasis({ settings: set, saved, phases, moving }, one, settings);
        return frameFacts(one, settings, mine, basis).findings.length > 0;
      }).length,
    [project, places, set, saved, phases, moving, finishing, measured, known],
  );
}
