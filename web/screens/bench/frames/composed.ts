import type { Analysis, Composing, Original } from '@inkwell/core/model';
import { asComposed } from '@inkwell/core/proposing';
import { remembering } from '../../../parts/many/remembering.ts';

/** By the marks themselves: they are replaced, never changed, and what asks for the same gets the same. */
const remembered = remembering<Original['marks'], Original['marks']>();

/** An original with the marks that its frames are composed from: see `asComposed`. */
export function composedFrom(original: Original, seen: Analysis | null, composing: Composing): Original {
  const from = [original.decided, seen, composing];
  const marks = remembered(original.marks, from, () => asComposed(original, seen, composing).marks);
  return { ...original, marks };
}
