import { boundsOf, marksOnPicture, pictureBox, spreadOf } from '../geometry/index.ts';
import { type Finding, type FrameChange, isMust, type KeepMark, type Place, type Window } from '../model/index.ts';
import { composeStrip, cutMarks, tooTallWords } from '../splitting/index.ts';
import type { FrameToCheck } from './frameToCheck.ts';

/** What is wrong with a frame that is cut into pieces: its picture is no strip, or a seam runs through a mark. */
export function stripFindings(frame: FrameToCheck, window: Window): Finding[] {
  const { original, place, settings } = frame;
  const grid = spreadOf(place, settings);
  if (!grid) return [];
  const box = pictureBox(original);
  const tall: Finding[] =
    place.group?.kind === 'panels' && !settings.backing && box.height > box.width
      ? [
          {
            kind: 'too tall for a strip',
            level: 'blocker',
            text: tooTallWords(original, grid),
            measured: `${box.width} × ${box.height} px`,
            allowed: 'wider than tall',
            fix: { label: 'Show all of it on an echo', change: { composed: true, backing: { kind: 'echo' } } },
          },
        ]
      : [];
  const musts = marksOnPicture(original.marks, box).filter(isMust);
  const cuts = cutMarks(window, grid, musts);
  const fix = cuts.length > 0 ? freeing(frame, place, musts, cuts.length) : null;
  return [
    ...tall,
    ...cuts.map(
      ({ name, pixels }): Finding => ({
        kind: 'seam through mark',
        level: 'caution',
        text: `A seam runs ${pixels} px deep through ${name}.`,
        measured: pixels,
        allowed: 0,
        ...(fix ? { fix } : {}),
      }),
    ),
  ];
}

/** What brings fewer seams into marks: composing again, or the nearest number of panels that does. */
function freeing(
  { original, settings }: FrameToCheck,
  place: Place,
  musts: readonly KeepMark[],
  cuts: number,
): { label: string; change: FrameChange } | null {
  const bounds = boundsOf(original, null);
  const isBetter = (columns: number) => {
    const grid = spreadOf(place, { ...settings, grid: { columns, rows: settings.grid?.rows ?? 1 } });
    const composed = grid && composeStrip(bounds, grid, musts);
    return composed !== null && composed.cuts.length < cuts && composed.outside === 0;
  };
  const now = settings.grid?.columns ?? 1;
  if (!settings.composed && isBetter(now)) return { label: 'Compose again', change: { composed: true } };
  const { group } = place;
  if (group?.kind !== 'panels') return null;
  const others = Array.from({ length: group.max - group.min + 1 }, (_, index) => group.min + index)
    .filter((columns) => columns !== now)
    .sort((a, b) => Math.abs(a - now) - Math.abs(b - now))
    .slice(0, 6);
  const better = others.find(isBetter);
  return better
    ? { label: `Make it ${better} panels`, change: { composed: true, grid: { columns: better, rows: 1 } } }
    : null;
}
