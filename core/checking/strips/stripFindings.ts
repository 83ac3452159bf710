import {
  boundsOf,
  enlargement,
  largestWindow,
  marksOnPicture,
  pictureBox,
  spreadOf,
  wholeDimensions,
} from '../../geometry/index.ts';
import {
  type Finding,
  type FrameChange,
  isMust,
  type KeepMark,
  type Mark,
  type Place,
  type Window,
} from '../../model/index.ts';
import { composeStrip, cutMarks, panelRange, tooTallWords } from '../../splitting/index.ts';
import type { FrameToCheck } from '../frameToCheck.ts';

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
  const own = original.marks.filter((mark) => !mark.proposed);
  const musts = marksOnPicture<Mark>(own, box).filter(isMust);
  const few = tall.length > 0 ? null : fewPixels(frame, place, window);
  const cuts = cutMarks(window, grid, musts);
  const fix = cuts.length > 0 ? freeing(frame, place, musts, cuts.length) : null;
  return [
    ...tall,
    ...(few ? [few] : []),
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

/** A strip that is enlarged more than this has not the pixels for its panels. */
const mostEnlarged = 3;

/** A strip whose picture has not the pixels for it, with the most panels for which it has. */
function fewPixels({ original, settings }: FrameToCheck, place: Place, window: Window): Finding | null {
  const grid = spreadOf(place, settings);
  if (!grid || place.group?.kind !== 'panels' || settings.backing) return null;
  const enlarged = enlargement(window, wholeDimensions(grid));
  if (enlarged <= mostEnlarged) return null;
  const { width, height } = pictureBox(original);
  const bounds = boundsOf(original, null);
  const timesAt = (columns: number) => {
    const output = wholeDimensions({ ...grid, columns });
    return enlargement(largestWindow(bounds, output), output);
  };
  const { least, most } = panelRange(place, settings.closing !== null) ?? { least: 0, most: -1 };
  const counts = Array.from({ length: Math.max(0, most - least + 1) }, (_, index) => most - index);
  const enough = counts.find((columns) => timesAt(columns) <= mostEnlarged);
  const offer = enough
    ? `Make it ${enough} panels, or choose a picture with more pixels.`
    : 'Post it as one picture in a smaller place, or choose a picture with more pixels.';
  return {
    kind: 'too few pixels for a strip',
    level: 'blocker',
    text: `This picture has ${width} × ${height} px: a strip of ${grid.columns} enlarges it ${enlarged.toFixed(1)} times. ${offer}`,
    measured: Number(enlarged.toFixed(2)),
    allowed: mostEnlarged,
    ...(enough
      ? { fix: { label: `Make it ${enough} panels`, change: { composed: true, grid: { columns: enough, rows: 1 } } } }
      : {}),
  };
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
