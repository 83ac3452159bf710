import { fileNameWord } from '../naming/index.ts';

/** Ids stand in addresses and in file names. */
const longestWord = 60;

/** A name as a word for an id. @param otherwise where nothing is left of it */
export const slugWord = (name: string, otherwise: 'sheet' | 'place'): string =>
  fileNameWord(name).slice(0, longestWord).replace(/-+$/, '') || otherwise;

/** The id of a sheet of one's own, by its name. */
export const ownSheetSlug = (name: string): string => `own-${slugWord(name, 'sheet')}`;

/** An id, numbered from 2 where it is taken. */
export function freeSlug(base: string, taken: ReadonlySet<string>): string {
  let slug = base;
  for (let number = 2; taken.has(slug); number += 1) slug = `${base}-${number}`;
  return slug;
}

/** An id for a new place of a sheet, by its name. @param others the places that are there */
export const newPlaceSlug = (name: string, others: readonly { slug: string }[]): string =>
  freeSlug(slugWord(name, 'place'), new Set(others.map(({ slug }) => slug)));
