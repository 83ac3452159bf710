import { type Rect, rectWithin } from '@inkwell/core/geometry';
import type { Mark, Original } from '@inkwell/core/model';
import { smallestMark } from '../../../stage/tools.ts';

/** A name that no mark has yet: "Keep 1", "Keep 2", … */
function freeName(role: Mark['role'], marks: readonly Mark[]): string {
  const stem = role === 'keep' ? 'Keep' : 'Avoid';
  const taken = new Set(marks.map((mark) => mark.name));
  let number = 1;
  while (taken.has(`${stem} ${number}`)) number += 1;
  return `${stem} ${number}`;
}

/** A mark for a region of an original, kept inside of it. */
export function newMark(role: Mark['role'], region: Rect, original: Original): Mark {
  const common = {
    ...rectWithin(region, original, smallestMark),
    id: crypto.randomUUID(),
    name: freeName(role, original.marks),
    shape: 'rectangle' as const,
  };
  return role === 'avoid' ? { ...common, role } : { ...common, role, priority: 'must', kind: null, look: null };
}

/** Where a mark begins that is added by the keyboard: in the middle, a fifth of the picture. */
export function middleRegion({ width, height }: Original): Rect {
  return { left: width * 0.4, top: height * 0.4, width: width * 0.2, height: height * 0.2 };
}

/** The mark in the other role, with what both roles have in common. */
export function inRole(mark: Mark, role: Mark['role']): Mark {
  if (mark.role === role) return mark;
  const { id, name, shape, left, top, width, height } = mark;
  const common = { id, name, shape, left, top, width, height };
  return role === 'avoid' ? { ...common, role } : { ...common, role, priority: 'must', kind: null, look: null };
}
