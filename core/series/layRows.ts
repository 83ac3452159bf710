import type { Lettering, Original, SeriesRow } from '../model/index.ts';

/** The picture of a row: one that is there, or a copy of it that has to be made. */
export type RowPicture = { originalId: string } | { copyOf: string };

type Picture = Pick<Original, 'id' | 'sha256' | 'page'>;

/**
 * Which picture each row is about. Rows that name the same one take the pictures over the same bytes that the project has, in its order, and
 * then copies: so a table that is read once more finds what it has made.
 *
 * @param pictures of the project, and those that rows name beside them
 */
export function rowPictures(
  rows: readonly Pick<SeriesRow, 'originalId'>[],
  pictures: readonly Picture[],
): RowPicture[] {
  const byId = new Map(pictures.map((one) => [one.id, one]));
  const taken = new Set<string>();
  return rows.map(({ originalId }) => {
    const named = byId.get(originalId);
    const alike = pictures.filter(({ sha256, page }) => sha256 === named?.sha256 && page === named.page);
    const free = [named, ...alike].find((one) => one && !taken.has(one.id));
    if (!free) return { copyOf: originalId };
    taken.add(free.id);
    return { originalId: free.id };
  });
}

/** A row whose picture is there. @param copyOf the picture that it was made from; null for one that was there before */
export interface LaidRow extends Pick<SeriesRow, 'originalId' | 'words'> {
  copyOf: string | null;
}

/**
 * The lettering of a project with what rows say. Words that are what the item says anyway follow it; an item that is shown on some pictures is
 * shown on those as well for which a row has words.
 */
export const withRows = (lettering: Lettering, rows: readonly LaidRow[]): Lettering =>
  lettering.map((item) => {
    const shown = item.originalIds && new Set(item.originalIds);
    for (const { originalId, copyOf, words } of rows) {
      if (copyOf !== null && shown?.has(copyOf)) shown.add(originalId);
      if (words[item.id]?.text) shown?.add(originalId);
    }
    const over = { ...item, originalIds: shown && [...shown] };
    if (over.kind !== 'words') return over;
    const own = new Map(Object.entries(over.onPictures ?? {}));
    for (const { originalId, copyOf, words } of rows) {
      const said = words[item.id] ?? (copyOf === null ? undefined : own.get(copyOf));
      if (!said) continue;
      if (said.text === over.text && said.short === over.short) own.delete(originalId);
      else own.set(originalId, said);
    }
    const { onPictures: _, ...words } = over;
    return own.size > 0 ? { ...words, onPictures: Object.fromEntries(own) } : words;
  });
