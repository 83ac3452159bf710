import { isOnOriginal } from '../lettering/index.ts';
import type { Lettering, PictureWords, WordsItem } from '../model/index.ts';

/** What an item says on one picture; nothing where it is left out there. */
export const wordsOn = (item: WordsItem, originalId: string): PictureWords =>
  isOnOriginal(item, originalId)
    ? (item.onPictures?.[originalId] ?? { text: item.text, short: item.short })
    : { text: '', short: '' };

/** Whether an item says something of its own on a picture, or is left out there. */
export const hasOwnWords = (item: WordsItem, originalId: string): boolean =>
  !isOnOriginal(item, originalId) || item.onPictures?.[originalId] !== undefined;

/** The lettering with an item that says on a picture again what it says on all. */
export const asOnAll = (lettering: Lettering, itemId: string, originalId: string): Lettering =>
  lettering.map((item) => {
    if (item.id !== itemId || item.kind !== 'words') return item;
    const { onPictures: { [originalId]: _, ...others } = {}, ...words } = item;
    const originalIds = isOnOriginal(item, originalId) ? item.originalIds : [...(item.originalIds ?? []), originalId];
    return { ...words, originalIds, ...(Object.keys(others).length > 0 ? { onPictures: others } : {}) };
  });
