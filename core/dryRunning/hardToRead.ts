import type { WordsShown } from '../model/index.ts';

/** Words that could be read well as they were delivered, and cannot be as they are shown. */
export const hardToRead = (words: readonly WordsShown[]): WordsShown[] =>
  words.filter(({ delivered, shown, least }) => delivered >= least && shown < least);
