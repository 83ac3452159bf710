import {
  type Bounds,
  clampWindow,
  insideSpan,
  marksOnPicture,
  type Pose,
  type Rect,
  smallestSpan,
  upright,
} from '../geometry/index.ts';
import type { KeepMark, Mark, MarkToCompose, Window } from '../model/index.ts';
import { wordsShare, wordsSides } from './besideWords.ts';
import { avoidConstraint, type Constraint, constraintSidesOf, keepConstraint, type Zone } from './constraints.ts';
import type { ContentArea } from './contentArea.ts';
import { bestAnswer } from './feasible.ts';
import { framePoseOf, insidePicture } from './halfSpaces.ts';
import type { HalfSpace } from './linearProgram.ts';
import type { Setting } from './setting.ts';
import { type Unmet, unmetMarks } from './unmet.ts';
import { type Wanted, wanting } from './wantedWindow.ts';

export interface Composed {
  window: Window;
  /** Named parts, each 0..1. */
  score: {
    /** Share of the keep marks that lie where they should. */
    kept: number;
    /** Share of the avoid marks that are out. */
    avoided: number;
    /** 1 where nothing is enlarged, else the original pixels for one output pixel. */
    sharpness: number;
    /** 1 where the subject lies where the composition wants it. */
    composition: number;
    /** The window's width as a part of the widest that is possible. */
    extent: number;
  };
  /** What could not be honoured, in words. */
  unmet: Unmet[];
}

/** Leaving out an avoid mark is not worth enlarging the picture more than this. */
const enlargedForAvoiding = 1.5;

/**
 * Composes the window of one frame from the marks on its original: keep marks by priority, then avoid marks, then what was
 * only seen, no enlargement while it can be helped, then the composition that suits the place, then as much of the picture as
 * possible.
 *
 * Every demand is a half-space over (x, y, span), so what is possible is found exactly, without trying windows. The
 * same input gives the same window, and a small change of a mark a small change of the window, as long as it stays
 * possible to keep the same marks on the same sides.
 *
 * @param bounds where the window may lie; `beyond` is ignored: what is composed stays on the picture
 * @param wordsRoom that words ask for, in squares of the frame's shorter side: where it is not free anyhow, the side on which most of
 * it can be made free without giving up a mark
 */
export function composeWindow(
  bounds: Bounds,
  contentArea: ContentArea,
  marks: readonly Mark[],
  pose: Pose = upright,
  wordsRoom = 0,
): Composed {
  const plain = composeBeside(null, bounds, contentArea, marks, pose);
  if (wordsRoom === 0) return plain;
  const seen = marksOnPicture(marks, bounds.box);
  const shareOf = ({ window }: Composed) => wordsShare(window, contentArea, seen, wordsRoom);
  let best = { composed: plain, share: shareOf(plain) + worthMoving };
  for (const side of wordsSides) {
    if (best.share >= 1) break;
    const composed = composeBeside({ side, asked: wordsRoom }, bounds, contentArea, marks, pose);
    const isAsGood = composed.unmet.every(({ markId }) => plain.unmet.some((one) => one.markId === markId));
    const share = shareOf(composed);
    if (isAsGood && share > best.share) best = { composed, share };
  }
  return best.composed;
}

/** For less room than this, as a share of what is asked for, no window is moved. */
const worthMoving = 0.1;

function composeBeside(
  words: Setting['words'],
  bounds: Bounds,
  contentArea: ContentArea,
  marks: readonly Mark[],
  { turn, mirror }: Pose,
): Composed {
  const output = contentArea.dimensions;
  const pose = { turn, mirror };
  const seen = marksOnPicture(marks, bounds.box);
  const unit = Math.max(bounds.box.width, bounds.box.height);
  const box = scaled(bounds.box, unit);
  const framePose = framePoseOf(output, pose);
  const full = insideSpan(box, output, pose.turn);
  const setting: Setting = {
    contentArea,
    framePose,
    box,
    full,
    sharpSpan: (output.width / unit) * Math.max(1, 1 / contentArea.stretch),
    words,
  };
  const least = Math.min(full, smallestSpan(bounds, output, pose.turn) / unit);
  const base: HalfSpace[] = [
    ...insidePicture({ box, beyond: false }, framePose),
    { normal: [0, 0, -1], limit: -least },
  ];
  const answer = chooseWindow(
    seen.map((mark) => scaled(mark, unit)),
    setting,
    (demands, kept) => bestAnswer(base, demands, wanting(kept, setting)),
  );
  // Where nothing at all is possible, what is next to it.
  const [x = 0, y = 0, span = full] = answer?.point ?? [];
  const window = clampWindow(
    { centreX: x * unit, centreY: y * unit, span: span * unit, ...pose },
    { ...bounds, beyond: false },
    output,
  );
  const unmet = unmetMarks(window, contentArea, seen);
  const honoured = (role: Mark['role']) => {
    const all = seen.filter((mark) => mark.role === role);
    return share(all.filter((mark) => !unmet.some((one) => one.markId === mark.id)).length, all.length);
  };
  return {
    window,
    score: {
      kept: honoured('keep'),
      avoided: honoured('avoid'),
      sharpness: Math.min(1, window.span / output.width),
      composition: answer?.composition ?? 1,
      extent: span / full,
    },
    unmet,
  };
}

const share = (part: number, whole: number) => (whole === 0 ? 1 : part / whole);

/** In coordinates of about 1, in which rounding errors are alike for every picture. */
function scaled<Shape extends Rect>(one: Shape, unit: number): Shape {
  return {
    ...one,
    left: one.left / unit,
    top: one.top / unit,
    width: one.width / unit,
    height: one.height / unit,
  };
}

function byPriority(marks: readonly Mark[]): KeepMark[] {
  const keeps = marks.filter((mark) => mark.role === 'keep');
  return [...keeps.filter((mark) => mark.priority === 'must'), ...keeps.filter((mark) => mark.priority === 'should')];
}

/** What was seen and need not be in yields to all that a person has marked, also to what they want out. */
const isGuess = (mark: KeepMark & Pick<MarkToCompose, 'proposed'>) =>
  mark.proposed !== undefined && mark.priority === 'should';

/** So much room is left round a mark where there is any: a part of the mark's own width and height on each side. */
const roomRound = 0.15;

/** A mark with room round it, as far as the picture goes: beyond its edge there is no window. */
function withRoom<Kept extends Mark>(mark: Kept, box: Rect): Kept {
  const [x, y] = [mark.width * roomRound, mark.height * roomRound];
  const left = Math.max(Math.min(mark.left, box.left), mark.left - x);
  const top = Math.max(Math.min(mark.top, box.top), mark.top - y);
  const right = mark.left + mark.width;
  const bottom = mark.top + mark.height;
  const width = Math.min(Math.max(right, box.left + box.width), right + x) - left;
  const height = Math.min(Math.max(bottom, box.top + box.height), bottom + y) - top;
  return { ...mark, left, top, width, height };
}

/** The zones in which a mark can lie, the best first; those that are the same at this place only once. */
const zonesOf = (contentArea: ContentArea): Zone[] => [
  'always shown',
  ...(contentArea.shownPart ? (['open'] as const) : []),
  ...(contentArea.covered.length > 0 ? (['frame'] as const) : []),
];

/** The first answer that is not null. */
function firstOf<Item, Found>(items: readonly Item[], find: (item: Item) => Found | null): Found | null {
  for (const item of items) {
    const found = find(item);
    if (found !== null) return found;
  }
  return null;
}

/**
 * Finds out which demands can be met together. All at once first; where that is impossible, one after the other in the
 * order of their priority, and each keep mark in the best zone that is left for it.
 */
function chooseWindow(
  marks: readonly Mark[],
  { contentArea, framePose, full, sharpSpan, box }: Omit<Setting, 'words'>,
  settle: (demands: readonly Constraint[], kept: readonly KeepMark[]) => Wanted | null,
): Wanted | null {
  const sides = constraintSidesOf(contentArea, framePose);
  const keeps = byPriority(marks);
  const avoids = marks.filter((mark) => mark.role === 'avoid').map((mark) => avoidConstraint(mark, sides));
  const sharpEnough: Constraint = {
    all: [{ normal: [0, 0, -1], limit: -Math.min(full, sharpSpan / enlargedForAvoiding) }],
    oneOf: [],
  };
  const sharpAvoids = avoids.length > 0 ? [...avoids, sharpEnough] : [];
  const roomy = (some: readonly KeepMark[]) =>
    some.map((mark) => keepConstraint(withRoom(mark, box), 'always shown', sides));
  const shown = keeps.map((mark) => keepConstraint(mark, 'always shown', sides));
  const all = settle([...roomy(keeps), ...sharpAvoids], keeps) ?? settle([...shown, ...sharpAvoids], keeps);
  if (all) return all;

  const zones = zonesOf(contentArea);
  const demands: Constraint[] = [];
  const kept: KeepMark[] = [];
  let answer = settle([], []);
  const keepEach = (some: readonly KeepMark[]) => {
    for (const mark of some) {
      const found = firstOf(zones, (zone) => {
        const demand = keepConstraint(mark, zone, sides);
        const better = settle([...demands, demand], [...kept, mark]);
        return better && { demand, better };
      });
      if (!found) continue;
      demands.push(found.demand);
      kept.push(mark);
      answer = found.better;
    }
  };
  keepEach(keeps.filter((mark) => !isGuess(mark)));
  const room = roomy(kept);
  const roomier = kept.length > 0 ? settle([...demands, ...room], kept) : null;
  if (roomier) {
    demands.push(...room);
    answer = roomier;
  }
  for (const demand of avoids) {
    const better = settle([...demands, demand, sharpEnough], kept);
    if (!better) continue;
    demands.push(demand, sharpEnough);
    answer = better;
  }
  keepEach(keeps.filter(isGuess));
  return answer;
}
