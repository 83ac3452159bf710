import type { Lettering, WordsItem } from '@inkwell/core/model';
import { useMemo } from 'react';

/** The items of a project that say something: each is a column of its series. */
export const useWordsItems = (lettering: Lettering): WordsItem[] =>
  useMemo(() => lettering.flatMap((item) => (item.kind === 'words' ? [item] : [])), [lettering]);
