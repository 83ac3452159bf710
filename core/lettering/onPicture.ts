import type { Item, Lettering } from '../model/index.ts';
import { isOnOriginal } from './letterItems.ts';

/**
 * The items that are laid over one picture, with what they say there: words that are its own stand in place of the others, and an item
 * whose own words are empty is left out.
 */
export const itemsOnPicture = (lettering: Lettering, originalId: string): Lettering =>
  lettering.flatMap((item): Item[] => {
    if (!isOnOriginal(item, originalId)) return [];
    if (item.kind !== 'words') return [item];
    const { onPictures, ...words } = item;
    const own = onPictures?.[originalId];
    if (own && own.text.trim() === '') return [];
    return [{ ...words, ...own }];
  });
