import { piecesOf } from '../geometry/index.ts';
import type { RenderPlan } from './renderPlan.ts';

/** What is written on one file of a plan, in the order of importance. @param piece of a picture that is cut, in reading order */
export function wordsOn(
  { lettering, grid, output }: Pick<RenderPlan, 'lettering' | 'grid' | 'output'>,
  piece: number,
): string[] {
  const file = (grid && piecesOf(grid)[piece]) ?? { left: 0, top: 0, ...output };
  const items = (lettering?.items ?? []).filter(({ text, box }) => {
    const [x, y] = [box.left + box.width / 2 - file.left, box.top + box.height / 2 - file.top];
    return text !== '' && x >= 0 && x < file.width && y >= 0 && y < file.height;
  });
  return items.map(({ text }) => text);
}
