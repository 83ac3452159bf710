import {
  area,
  type Bounds,
  boundsOf,
  enlargement,
  type Grid,
  largestWindow,
  type Picture,
  pictureBox,
  wholeDimensions,
} from '../geometry/index.ts';
import type { Mark, Place, Window } from '../model/index.ts';
import { type ComposedStrip, composeStrip } from './composeStrip.ts';

/** One way of cutting a picture into panels side by side. */
export interface StripProposal extends ComposedStrip {
  place: Place;
  panels: number;
  /** The share of the picture that no panel shows, 0..1. */
  lost: number;
  /** Output pixels for one pixel of the original. */
  enlarged: number;
  /** What speaks against it, in words; empty where nothing does. */
  against: string[];
}

export interface StripPlan {
  /** The best first. */
  proposals: StripProposal[];
  /** Why the picture makes no good strip, in words; null where it does. */
  problem: string | null;
}

/** More than this is lost, and it is a part of the picture that is shown rather than the picture. */
const muchLost = 0.5;
/** A cut mark counts as much as this share of the picture. */
const cutCost = 0.25;

/**
 * Proposes counts and shapes of panels for a picture, ranked by what is lost of it, by enlargement and by seams that run
 * through what must be kept.
 *
 * @param places those that take panels
 */
export function planStrips(original: Picture, places: readonly Place[], marks: readonly Mark[]): StripPlan {
  const bounds = boundsOf(original, null);
  const proposals = places
    .flatMap((place) => counts(place).map((panels) => propose(place, panels, bounds, marks)))
    .filter((proposal) => proposal !== null)
    .sort((a, b) => costOf(a) - costOf(b));
  return { proposals, problem: problemOf(original, proposals) };
}

/** The numbers of panels that a place takes. */
function counts({ group }: Place): number[] {
  if (group?.kind !== 'panels') return [];
  return Array.from({ length: group.max - group.min + 1 }, (_, index) => group.min + index);
}

function propose(place: Place, panels: number, bounds: Bounds, marks: readonly Mark[]): StripProposal | null {
  if (typeof place.height !== 'number') return null;
  const grid = gridOfPanels(place, panels, place.height);
  const output = wholeDimensions(grid);
  const strip = composeStrip(bounds, grid, marks);
  const lost = 1 - shownArea(strip.window, output.height / output.width) / area(bounds.box);
  const enlarged = enlargement(strip.window, output);
  return { ...strip, place, panels, lost, enlarged, against: against(strip, lost, enlarged) };
}

const gridOfPanels = ({ width }: Place, columns: number, height: number): Grid => ({
  columns,
  rows: 1,
  piece: { width, height },
  bridge: 0,
});

/** Why a picture that is taller than it is wide makes no strip, and what would work instead. */
export function tooTallWords(original: Picture, grid: Grid): string {
  const bounds = boundsOf(original, null);
  const output = wholeDimensions(grid);
  const shown = shownArea(largestWindow(bounds, output), output.height / output.width) / area(bounds.box);
  return `This picture is taller than it is wide: a strip of ${grid.columns} would show only ${percent(shown)} of it. Post it as one portrait picture, cut another part of it, or lay it on a backing with something beside it.`;
}

const shownArea = ({ span }: Window, rise: number) => span * span * rise;
const costOf = ({ lost, enlarged, cuts, outside }: StripProposal) =>
  lost + Math.max(0, enlarged - 1) / 2 + (cuts.length + 2 * outside) * cutCost;
const percent = (share: number) => `${Math.round(share * 100)} %`;

function against({ cuts, outside }: ComposedStrip, lost: number, enlarged: number): string[] {
  return [
    ...(lost > 0.02 ? [`${percent(lost)} of the picture is not shown.`] : []),
    ...(enlarged > 1.0005 ? [`Enlarged ${enlarged.toFixed(2)} times.`] : []),
    ...(outside > 0 ? [`${outside === 1 ? 'One mark is' : `${outside} marks are`} not whole in it.`] : []),
    ...cuts.map(({ name, pixels }) => `A seam runs ${pixels} px deep through ${name}.`),
  ];
}

/** What is wrong with the picture itself, and what would work instead. */
function problemOf(original: Picture, proposals: readonly StripProposal[]): string | null {
  const [best] = proposals;
  if (!best) return 'This network takes no panels side by side.';
  const { width, height } = pictureBox(original);
  if (height > width && typeof best.place.height === 'number')
    return tooTallWords(original, gridOfPanels(best.place, best.panels, best.place.height));
  if (best.lost > muchLost) {
    return `Even ${best.panels} panels show only ${percent(1 - best.lost)} of this picture. Choose fewer panels, square ones, or another part of the picture.`;
  }
  const sharp = proposals.find(({ enlarged }) => enlarged <= 1.0005);
  if (!sharp) {
    return `This picture has too few pixels for panels: even the best way enlarges it ${Math.min(...proposals.map((one) => one.enlarged)).toFixed(2)} times. A square panel or fewer of them ask for less.`;
  }
  return null;
}
