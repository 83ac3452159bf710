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
 * @returns the pixels that name them
 */
export function stableParts(tree: ComponentTree, levels: Uint8Array, isWanted: (part: number) => boolean): number[] {
  const { parent, parts, area } = tree;
  const growth = growths(tree, levels);
  // Of the parts that grow into each other, by the last of them: the most stable so far, and the area of the first; 0 for none.
  const best = new Int32Array(parent.length);
  const first = new Int32Array(parent.length);
  const found: number[] = [];
  for (const part of parts) {
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
function growths({ parent, parts, area }: ComponentTree, levels: Uint8Array): Float32Array {
  const growth = new Float32Array(parent.length).fill(Number.POSITIVE_INFINITY);
  for (const part of parts) {
    const until = (levels[part] as number) - step;
    let wider = part;
    while (parent[wider] !== wider && (levels[parent[wider] as number] as number) > until)
      wider = parent[wider] as number;
    if (parent[wider] === wider) continue;
    growth[part] = ((area[wider] as number) - (area[part] as number)) / (area[part] as number);
  }
  return growth;
}
