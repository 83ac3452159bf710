import { clamp, heightOverWidth, type Point } from '../geometry/index.ts';
import type { KeepMark } from '../model/index.ts';
import { type Composition, compositionOf } from './composition.ts';
import { clipPolygon, nearestPoint, type Polygon } from './convexPolygon.ts';
import type { Asking, Range } from './feasible.ts';
import type { HalfSpace } from './linearProgram.ts';
import type { Setting } from './setting.ts';

export interface Wanted {
  /** Centre and span. */
  point: readonly number[];
  worth: number;
  /** 1 where the subject lies just where the composition wants it, less the further away. */
  composition: number;
}

/** Among ways to keep all marks, the composition counts this much beside the extent of the picture. */
const compositionShare = 0.5;

/** Says which window is wanted for these marks, of all that are possible. */
export function wanting(kept: readonly KeepMark[], setting: Setting): Asking<Wanted> {
  const wish = compositionOf(kept, setting);
  return {
    bound: ({ widest }) => (widest[2] ?? 0) / setting.full,
    answer: (range) => wantedWindow(range, wish, setting),
  };
}

/** The span first, then the place of the subject in the frame. */
function wantedWindow(
  { limits, narrowest, widest }: Range,
  wish: Composition,
  { framePose, full, sharpSpan }: Setting,
): Wanted {
  const high = widest[2] ?? 0;
  const centre = (span: number): Point => ({
    x: wish.anchor.x - (framePose.across.x * wish.offset.x + framePose.down.x * wish.offset.y) * span,
    y: wish.anchor.y - (framePose.across.y * wish.offset.x + framePose.down.y * wish.offset.y) * span,
  });
  const free = freeSpan(limits, centre);
  const sharp = Math.min(sharpSpan, high);
  const wanted = wish.span === null ? Math.max(free ?? 0, high * wish.leastExtent, sharp) : Math.max(wish.span, sharp);
  const span = wanted >= high ? high : clamp(wanted, narrowest()[2] ?? 0, high);
  const aim = centre(span);
  // At the widest span a single point may be left, which roundings can lose.
  const point = nearestWithin(limits, span, aim) ?? { x: widest[0] ?? 0, y: widest[1] ?? 0 };
  const away = Math.hypot(point.x - aim.x, point.y - aim.y) / (span * Math.hypot(1, heightOverWidth(framePose.output)));
  const composition = Math.max(0, 1 - 2 * away);
  const worth = (high / full) * (1 - compositionShare * (1 - composition));
  return { point: [point.x, point.y, span], worth, composition };
}

/** The widest span with which the middle can lie just where it is wanted, or null where it never can. */
function freeSpan(limits: readonly HalfSpace[], centre: (span: number) => Point): number | null {
  const [at, one] = [centre(0), centre(1)];
  let [low, high] = [0, Number.POSITIVE_INFINITY];
  for (const { normal, limit } of limits) {
    const [x = 0, y = 0, span = 0] = normal;
    const slope = x * (one.x - at.x) + y * (one.y - at.y) + span;
    const rest = limit - x * at.x - y * at.y;
    if (slope > 1e-12) high = Math.min(high, rest / slope);
    else if (slope < -1e-12) low = Math.max(low, rest / slope);
    else if (rest < -1e-9) return null;
  }
  return low <= high ? high : null;
}

/** The point nearest to `aim` at which a window of this span meets all limits. */
function nearestWithin(limits: readonly HalfSpace[], span: number, aim: Point): Point | null {
  let polygon: Polygon = [
    { x: -9, y: -9 },
    { x: 9, y: -9 },
    { x: 9, y: 9 },
    { x: -9, y: 9 },
  ];
  for (const { normal, limit } of limits) {
    const [x = 0, y = 0, grows = 0] = normal;
    polygon = clipPolygon(polygon, x, y, limit - grows * span + 1e-9);
  }
  return nearestPoint(polygon, aim);
}
