import type { Analysis, Composing, Original } from '@inkwell/core/model';
import { asComposed } from '@inkwell/core/proposing';

interface Known {
  original: Original;
  seen: Analysis | null;
  composing: Composing;
  composed: Original;
}

/** By the marks themselves: they are replaced, never changed, and what asks for the same gets the same. */
const known = new WeakMap<Original['marks'], Known>();

/** An original with the marks that its frames are composed from: see `asComposed`. */
export function composedFrom(original: Original, seen: Analysis | null, composing: Composing): Original {
  const before = known.get(original.marks);
  const isSame =
    before !== undefined &&
    before.original.decided === original.decided &&
    before.seen === seen &&
    before.composing === composing;
  const { marks } = isSame ? before.composed : asComposed(original, seen, composing);
  const composed = { ...original, marks };
  if (!isSame) known.set(original.marks, { original, seen, composing, composed });
  return composed;
}
