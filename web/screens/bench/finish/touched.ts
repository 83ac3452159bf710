import type { BenchState } from '../state/benchState.ts';

/** How many frames of a bench's project a finish holds for, as they are set now. */
export function framesWith(finishId: string, { settings, saved }: BenchState): number {
  const project = Object.values(settings.projects)[0];
  return Object.values(saved.frames).filter(({ id, originalId }) => {
    const frame = settings.frames[id];
    return (frame?.finishId ?? settings.originals[originalId]?.finishId ?? project?.finishId) === finishId;
  }).length;
}

/**
 * What a change of a finish touches, in words.
 *
 * @param here frames of this project
 * @param all frames of all projects
 */
export function touchedWords(here: number, all: number): string {
  const frames = (count: number) => (count === 1 ? 'one frame' : `${count} frames`);
  const elsewhere = Math.max(0, all - here);
  if (here + elsewhere === 0) return 'No frame uses it.';
  const others = elsewhere > 0 ? ` and ${frames(elsewhere)} of other projects` : '';
  return `A change touches ${frames(here)} here${others}.`;
}
