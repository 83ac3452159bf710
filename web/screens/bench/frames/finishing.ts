import { type ResolvedFinish, resolveFinish } from '@inkwell/core/finishing';
import type { FontBook } from '@inkwell/core/lettering';
import type { Finish, FinishChoice, Project } from '@inkwell/core/model';

/** What finishes there are, and what the project says of all its frames, as both are set now. */
export interface Finishing {
  project: Pick<Project, 'finishId' | 'keeping' | 'composing' | 'lettering' | 'posting'>;
  finishes: readonly Finish[];
  /** What the project's words are set in; null while the fonts are loading. */
  book: FontBook | null;
}

/** The same with words as they are typed at this moment. */
export const withWords = (
  finishing: Finishing,
  { lettering, book }: { lettering: Finishing['project']['lettering']; book: FontBook | null },
): Finishing => ({ ...finishing, project: { ...finishing.project, lettering }, book });

/** How a frame is finished, and who says so. */
export const finishFor = (
  { original, finishing }: { original: FinishChoice; finishing: Finishing },
  frame: FinishChoice,
): ResolvedFinish => resolveFinish({ frame, original, project: finishing.project }, finishing.finishes);
