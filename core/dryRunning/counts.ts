import type { DryRun, DryRunCounts, LostEdges } from '../model/index.ts';

/** Whether something is gone at any edge. */
export const isCut = (lost: LostEdges): boolean => Object.values(lost).some((pixels) => pixels > 0);

/** How far a run is. */
export function runCounts({ files }: Pick<DryRun, 'files'>): DryRunCounts {
  const outcomes = files.flatMap(({ outcome }) => (outcome ? [outcome] : []));
  const shown = outcomes.flatMap((outcome) => (outcome.state === 'shown' ? [outcome.back] : []));
  return {
    files: files.length,
    over: outcomes.length,
    shown: shown.length,
    refused: outcomes.filter(({ state }) => state === 'refused').length,
    cut: shown.filter(({ lost }) => isCut(lost)).length,
  };
}
