import { type ResolvedFinish, resolveFinish } from '@inkwell/core/finishing';
import type { FontBook } from '@inkwell/core/lettering';
import type { Finish, FinishChoice, Project } from '@inkwell/core/model';

/** What finishes there are, and what the project says of all its frames, as both are set now. */
export interface Finishing {
  project: Pick<Project, 'finishId' | 'keeping' | 'composing' | 'lettering'>;
  finishes: readonly Finish[];
  /** What the project's words are set in; null while the fonts are loading. */
  book: FontBook | null;
}

/** How a frame is finished, and who says so. */
export const finishFor = (
  { original, finishing }: { original: FinishChoice; finishing: Finishing },
  frame: FinishChoice,
): ResolvedFinish => resolveFinish({ frame, original, project: finishing.project }, finishing.finishes);
