import { PlaneMemory } from '../../planes/index.ts';

/** Cells of so many pixels each way; two by two of them are a block. */
const cell = 4;
/**
 * A block whose values spread by so many levels (their standard deviation) hides half of its error. Texture hides less than it
 * is often given credit for: one block lifted by 24 levels is seen at 100 % wherever it lies.
 */
const masking = 40;

/**
 * Reserves the memory that it takes to find the most damaged block of eight by eight pixels; what comes back finds it once the two
 * planes are filled: its error in levels, less by what its texture hides. Means over a whole picture, or a spot of it, thin out
 * as the picture grows; a block is as large in every file, as the eye sees it at 100 %.
 */
export function lookForBlockError(
  arena: PlaneMemory,
  [before, after]: readonly [number, number],
  { width, height }: { width: number; height: number },
): () => number {
  const cells = { width: Math.max(1, Math.floor(width / cell)), height: Math.max(1, Math.floor(height / cell)) };
  const sums = arena.reserve(3 * PlaneMemory.lengthOf(cells));
  return () => arena.kernels.blockError(before, after, width, height, masking, sums);
}
