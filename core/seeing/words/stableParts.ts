import type { ComponentTree } from './componentTree.ts';

/** A part that keeps its shape over so many levels has an edge. */
const step = 12;
/** Over these levels it grows by no more than this share of its area. */
const mostGrowth = 0.6;

/** A part is the same as the one it lies in where that is no more than so many times as large. */
const sameArea = 1.6;

/**
 * The parts of a picture that hardly grow when the level falls: maximally stable extremal regions (Matas, Chum, Urban and Pajdla
 * 2002). Of parts that lie in each other and have nearly the same shape the most stable one is given.
 *
 * @returns their numbers
 */
export function stableParts(tree: ComponentTree, isWanted: (part: number) => boolean): number[] {
  const { count, parent, area } = tree;
  const growth = growths(tree);
  // Of the parts that grow into each other, by the last of them: the most stable so far, and the area of the first; 0 for none.
  const best = new Int32Array(count);
  const first = new Int32Array(count);
  const found: number[] = [];
  for (let part = 0; part < count; part += 1) {
    const isFollowing = (first[part] as number) > 0;
    const before = best[part] as number;
    const stable = isFollowing && (growth[before] as number) <= (growth[part] as number) ? before : part;
    const start = isFollowing ? (first[part] as number) : (area[part] as number);
    const above = parent[part] as number;
    if (above !== part && (area[above] as number) <= sameArea * start) {
      // Where two grow into one, the larger one goes on.
      if ((first[above] as number) < start) [best[above], first[above]] = [stable, start];
    } else if ((growth[stable] as number) <= mostGrowth && isWanted(stable)) found.push(stable);
  }
  return found;
}

/** By how much every part grows while the level falls by `step`, as a share of its area. */
function growths({ count, parent, level, area }: ComponentTree): Float32Array {
  const growth = new Float32Array(count).fill(Number.POSITIVE_INFINITY);
  for (let part = 0; part < count; part += 1) {
    const until = (level[part] as number) - step;
    let wider = part;
    while (parent[wider] !== wider && (level[parent[wider] as number] as number) > until)
      wider = parent[wider] as number;
    if (parent[wider] === wider) continue;
    growth[part] = ((area[wider] as number) - (area[part] as number)) / (area[part] as number);
  }
  return growth;
}
