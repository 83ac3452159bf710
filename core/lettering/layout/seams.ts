import type { Seam } from '../../geometry/index.ts';
import type { Alignment } from '../setting/setWords.ts';
import { type Block, type BlockPart, partBox } from './block.ts';

/** From one place of an axis to another. */
export interface Stretch {
  from: number;
  to: number;
}

type Axis = Seam['axis'];

/** What stays free between a letter and a seam, in em of the block. */
const clearance = 0.04;

/** What of a part may not be cut, along an axis, in em of its block: each contour of its letters, an emblem whole, and of shapes those that only point. */
function uncutOf(part: BlockPart, block: Block, alignment: Alignment, axis: Axis): Stretch[] {
  const { item, words, em } = part;
  const box = partBox(part, { left: 0, top: 0, width: block.width, height: block.height }, 1, alignment);
  const [start, length] = axis === 'x' ? [box.left, box.width] : [box.top, box.height];
  if (item.kind === 'shape' && item.form !== 'disc' && item.form !== 'arrow') return [];
  if (!words) return [{ from: start, to: start + length }];
  const contours: Stretch[] = [];
  const first = axis === 'x' ? 0 : 1;
  for (const { type, values } of words.outline(alignment)) {
    if (type === 'M') contours.push({ from: Number.POSITIVE_INFINITY, to: Number.NEGATIVE_INFINITY });
    const contour = contours.at(-1);
    for (let at = first; contour && at < values.length; at += 2) {
      const place = start + (values[at] as number) * em;
      contour.from = Math.min(contour.from, place);
      contour.to = Math.max(contour.to, place);
    }
  }
  return contours;
}

/** What of a block may not meet a seam, along an axis, in em from the block's left or top: in order, and apart from each other. */
function uncut(block: Block, alignment: Alignment, axis: Axis): Stretch[] {
  const all = block.parts
    .flatMap((part) => uncutOf(part, block, alignment, axis))
    .map(({ from, to }) => ({ from: from - clearance, to: to + clearance }))
    .sort((a, b) => a.from - b.from);
  const merged: Stretch[] = [];
  for (const one of all) {
    const last = merged.at(-1);
    if (last && one.from <= last.to) last.to = Math.max(last.to, one.to);
    else merged.push({ ...one });
  }
  return merged;
}

/**
 * Where a block can begin along an axis so that a seam meets only what is free between its letters.
 *
 * @param ink what of the block may not meet a seam, in em
 * @param range where it could begin if there were no seams
 */
function openStretches(
  ink: readonly Stretch[],
  em: number,
  seams: readonly Seam[],
  range: Readonly<Stretch>,
): Stretch[] {
  let open: Stretch[] = [{ from: range.from, to: Math.max(range.from, range.to) }];
  for (const { start, width } of seams) {
    for (const { from, to } of ink) {
      const [first, last] = [start - em * to, start + width - em * from];
      open = open.flatMap((one) =>
        [
          { from: one.from, to: Math.min(one.to, first) },
          { from: Math.max(one.from, last), to: one.to },
        ].filter((part) => part.from <= part.to),
      );
    }
  }
  return open;
}

/** The place nearest to a wanted one that lies in one of some stretches; at least one of them. */
export function nearestIn(open: readonly Stretch[], wanted: number): number {
  const places = open.map(({ from, to }) => Math.min(Math.max(wanted, from), to));
  return places.reduce((best, place) => (Math.abs(place - wanted) < Math.abs(best - wanted) ? place : best));
}

/** Where a block of a size can begin, each way; null where it cannot stand in a rectangle at all. */
export function openPlaces(
  block: Block,
  alignment: Alignment,
  em: number,
  seams: readonly Seam[],
  rect: { left: number; top: number; width: number; height: number },
): Record<Axis, Stretch[]> | null {
  const along = (axis: Axis, from: number, free: number) => {
    const across = seams.filter((seam) => seam.axis === axis);
    const ink = across.length > 0 ? uncut(block, alignment, axis) : [];
    return openStretches(ink, em, across, { from, to: from + free });
  };
  const x = along('x', rect.left, rect.width - block.width * em);
  const y = along('y', rect.top, rect.height - block.height * em);
  return x.length > 0 && y.length > 0 ? { x, y } : null;
}
