import { type Rect, rectWithin } from '@inkwell/core/geometry';
import { type Mark, marksLimit, type Original, type Proposal } from '@inkwell/core/model';
import { avoidMarkOf, decisionOn, keepMarkOf } from '@inkwell/core/proposing';
import { upperFirst } from 'es-toolkit';
import type { Decision } from '../../../stage/ProposalTag.tsx';
import { smallestMark } from '../../../stage/tools.ts';

/** A name that no mark has yet: "Keep 1", "Keep 2", … */
function freeName(stem: string, marks: readonly Mark[]): string {
  const taken = new Set(marks.map((mark) => mark.name));
  let number = 1;
  while (taken.has(`${stem} ${number}`)) number += 1;
  return `${stem} ${number}`;
}

/**
 * What a person says of proposals, carried out: they become marks or not, and are not proposed again. Those for which there is no
 * room among the marks stay as they are.
 */
export function decided(
  { marks, decided: before }: Pick<Original, 'marks' | 'decided'>,
  proposals: readonly Proposal[],
  decision: Decision,
): Pick<Original, 'marks' | 'decided'> {
  if (decision === 'dismiss') return { marks, decided: [...before, ...proposals.map(decisionOn)] };
  const next = [...marks];
  const taken = proposals.slice(0, marksLimit - marks.length);
  for (const one of taken) {
    const name = freeName(upperFirst(one.name), next);
    next.push((decision === 'keep' ? keepMarkOf : avoidMarkOf)(one, crypto.randomUUID(), name));
  }
  return { marks: next, decided: [...before, ...taken.map(decisionOn)] };
}

/** A mark for a region of an original, kept inside of it. */
export function newMark(role: Mark['role'], region: Rect, original: Original): Mark {
  const common = {
    ...rectWithin(region, original, smallestMark),
    id: crypto.randomUUID(),
    name: freeName(role === 'keep' ? 'Keep' : 'Avoid', original.marks),
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
