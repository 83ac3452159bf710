import type { Constraint } from './constraints.ts';

import { type HalfSpace, maximise } from './linearProgram.ts';

/** The windows that meet a set of limits, by the points (x, y, span) with the widest and the narrowest span. */
export interface Range {
  limits: HalfSpace[];
  widest: number[];
  /** Found when it is asked for: most windows are wanted wide. */
  narrowest(): number[];
}

/** @param before the range of the same limits without the last one: where its widest point meets that, it stays the widest */
function rangeOf(limits: HalfSpace[], before: Range | null): Range | null {
  const last = limits.at(-1);
  const stays = before && last && meets(last, before.widest);
  const widest = stays ? before.widest : maximise([0, 0, 1], limits);
  if (!widest) return null;
  let narrowest: number[] | undefined;
  return {
    limits,
    widest,
    narrowest() {
      narrowest ??= maximise([0, 0, -1], limits) ?? widest;
      return narrowest;
    },
  };
}

/** What is asked about a range of windows. */
export interface Asking<Answer> {
  /** Above the worth of every answer that meets the range's limits, and perhaps more. */
  bound(range: Range): number;
  /** The window that is wanted: a point (x, y, span) with its worth. */
  answer(range: Range): Answer;
}

/** So many choices among the sides on which a mark can lie are looked at, at most. */
const choicesTried = 300;
const tolerance = 1e-7;

const meets = ({ normal, limit }: HalfSpace, [x = 0, y = 0, span = 0]: readonly number[]) =>
  (normal[0] ?? 0) * x + (normal[1] ?? 0) * y + (normal[2] ?? 0) * span <= limit + tolerance;

/**
 * The best answer to a set of demands. A demand that offers a choice is only decided where an answer breaks it: then
 * each way of keeping it is followed (branch and bound).
 */
export function bestAnswer<Answer extends { point: readonly number[]; worth: number }>(
  base: readonly HalfSpace[],
  demands: readonly Constraint[],
  { bound, answer }: Asking<Answer>,
): Answer | null {
  const choices = demands.flatMap((demand) => demand.oneOf);
  let best: Answer | null = null;
  let tried = 0;
  const follow = (limits: HalfSpace[], before: Range | null) => {
    if (tried >= choicesTried) return;
    tried += 1;
    const range = rangeOf(limits, before);
    if (!range || (best && bound(range) <= best.worth)) return;
    const found = answer(range);
    const broken = choices.find((ways) => !ways.some((way) => meets(way, found.point)));
    if (!broken) {
      if (!best || found.worth > best.worth) best = found;
      return;
    }
    for (const way of broken) follow([...limits, way], range);
  };
  follow(tightest([...base, ...demands.flatMap((demand) => demand.all)]), null);
  return best;
}

/** Of limits with the same normal only the tightest counts: many marks ask for the same sides of the frame. */
function tightest(limits: readonly HalfSpace[]): HalfSpace[] {
  const found = new Map<readonly number[], HalfSpace>();
  for (const limit of limits) {
    const known = found.get(limit.normal);
    if (!known || limit.limit < known.limit) found.set(limit.normal, limit);
  }
  return [...found.values()];
}
