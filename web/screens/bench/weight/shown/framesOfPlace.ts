import type { Frame } from '@inkwell/core/model';
import type { BenchState } from '../../state/benchState.ts';

/** The frames of a project at one of its places. */
export const framesOfPlace = ({ frames }: Pick<BenchState['saved'], 'frames'>, placeId: string): Frame[] =>
  Object.values(frames).filter((frame) => frame.placeId === placeId);
