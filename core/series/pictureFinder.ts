import type { Original } from '../model/index.ts';

/** A picture that a table can name. */
export type NamedPicture = Pick<Original, 'id' | 'name' | 'fileName' | 'sha256' | 'page'>;

/** Finds the picture that a cell names; or says why there is none. */
export type PictureFinder = (cell: string) => NamedPicture | { problem: string };

/** Names that differ in case, accents or spaces only are the same. */
export const plainName = (text: string): string =>
  text.normalize('NFKD').replace(/\p{M}/gu, '').trim().replace(/\s+/g, ' ').toLowerCase();

/** What a picture can be called by: its name, the name of its file, with and without its ending. */
const namesOf = ({ name, fileName }: NamedPicture): Set<string> =>
  new Set([name, fileName, fileName.replace(/\.[^.]+$/, '')].map(plainName));

/**
 * Finds pictures by what they are called: those of the project before all others. Folders before the name of a file do not matter.
 *
 * @param project the project's pictures @param library all pictures
 */
export function pictureFinder(project: readonly NamedPicture[], library: readonly NamedPicture[]): PictureFinder {
  const shelves = [project, library].map((pictures) => {
    const byName = new Map<string, NamedPicture[]>();
    for (const picture of pictures) {
      for (const name of namesOf(picture)) byName.set(name, [...(byName.get(name) ?? []), picture]);
    }
    return byName;
  });
  return (cell) => {
    const name = plainName(cell.replace(/^.*[\\/]/, ''));
    if (name === '') return { problem: 'It names no picture.' };
    const found = shelves.map((shelf) => shelf.get(name) ?? []).find((pictures) => pictures.length > 0) ?? [];
    const [first] = found;
    if (!first) return { problem: `No picture is called ${cell.trim()}. Add it, or name one that is there.` };
    if (found.some(({ sha256, page }) => sha256 !== first.sha256 || page !== first.page)) {
      return { problem: `Several pictures are called ${cell.trim()}. Give them different names, and name one.` };
    }
    return first;
  };
}
