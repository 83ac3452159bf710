import { type ResolvedFinish, resolveFinish } from '@inkwell/core/finishing';
import type { Finish, FinishChoice } from '@inkwell/core/model';

/** What finishes there are, and which of them holds where nothing else is chosen, as both are set now. */
export interface Finishing {
  project: { finishId: string };
  finishes: readonly Finish[];
}

/** How a frame is finished, and who says so. */
export const finishFor = (
  { original, finishing }: { original: FinishChoice; finishing: Finishing },
  frame: FinishChoice,
): ResolvedFinish => resolveFinish({ frame, original, project: finishing.project }, finishing.finishes);
