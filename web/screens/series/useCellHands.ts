import type { WordsItem } from '@inkwell/core/model';
import { asOnAll, type LaidRow, withRows, wordsOn } from '@inkwell/core/series';
import { useMemo } from 'react';
import type { LetteringHands } from '../bench/lettering/useLettering.ts';

/** What an item says on a picture. */
interface SaidOn {
  itemId: string;
  originalId: string;
  text: string;
}

/** What can be done with the cells of a series: each change is made to the words as they are at that moment. */
export function useCellHands(hands: LetteringHands) {
  return useMemo(() => {
    const itemNow = (id: string): WordsItem | undefined => {
      const item = hands.items().find((one) => one.id === id);
      return item?.kind === 'words' ? item : undefined;
    };
    const row = ({ itemId, originalId, text }: SaidOn): LaidRow => {
      const item = itemNow(itemId);
      if (!item) return { originalId, copyOf: null, words: {} };
      const { short } = wordsOn(item, originalId);
      // The design's short version is about the design's words.
      const own = text === item.text ? item.short : short === item.short ? '' : short;
      return { originalId, copyOf: null, words: { [itemId]: { text, short: own } } };
    };
    return {
      /** Says something on one picture; while it is typed, seen at once and saved when the hands rest. */
      write: (said: SaidOn) => hands.writeAll(withRows(hands.items(), [row(said)])),
      /** Says something on many pictures, as one step. */
      fill: (said: readonly SaidOn[]) => hands.setAll(withRows(hands.items(), said.map(row))),
      /** Says again what the design says. */
      follow: (itemId: string, originalId: string) => hands.setAll(asOnAll(hands.items(), itemId, originalId)),
    };
  }, [hands]);
}
