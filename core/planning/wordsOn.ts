import { intersection, piecesOf } from '../geometry/index.ts';
import type { RenderPlan } from './renderPlan.ts';

/** Fewer pixels than this show nothing of a word. */
const unseen = 1;

/** What is written on one file of a plan, in the order of importance. @param piece of a picture that is cut, in reading order */
export function wordsOn(
  { lettering, grid, output }: Pick<RenderPlan, 'lettering' | 'grid' | 'output'>,
  piece: number,
): string[] {
  const file = (grid && piecesOf(grid)[piece]) ?? { left: 0, top: 0, ...output };
  const items = (lettering?.items ?? []).filter(({ text, box }) => {
    const { width, height } = intersection(box, file);
    return text !== '' && width > unseen && height > unseen;
  });
  return items.map(({ text }) => text);
}
