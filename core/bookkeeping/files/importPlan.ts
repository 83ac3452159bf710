import type { SheetContent, SpecSheet } from '../../model/index.ts';
import { isSame, type PlaceDifference, sheetDifferences } from '../differences.ts';
import type { ReadBook } from './readBook.ts';

/** What a file would do to one line of the book. */
export interface ImportLine {
  /** Where it stands in the file; empty of what is gone from it. */
  at: string;
  place: string;
  kind: 'new' | 'changed' | 'gone' | 'not understood' | 'same';
  /** What changes, or what is wrong, in words. */
  words: string[];
}

/** What a file would do to one sheet. */
export interface SheetImport {
  /** The id under which it is taken. */
  slug: string;
  name: string;
  kind: 'new' | 'changed' | 'same';
  /** The version that was compared with; null of a new one, or one that ships. */
  version: number | null;
  lines: ImportLine[];
  /** What the sheet says when that is taken. */
  content: SheetContent;
  /** That it cannot come in under its own id, and why; empty otherwise. */
  note: string;
}

export interface ImportPlan {
  sheets: SheetImport[];
  /** Of sheets that could not be read at all. */
  notUnderstood: ImportLine[];
}

const fieldWords = ({ fields }: PlaceDifference) =>
  fields.map(({ label, before, after }) => `${label}: ${before || 'nothing'} → ${after || 'nothing'}`);

/**
 * What a file would do to the book. Nothing is taken out: a place that the file does not have is put away, and one that could not be
 * understood stays as it is. A sheet that ships with the program stays too: what a file says otherwise comes in as one of one's own.
 *
 * @param contentOf what a sheet of the book says
 */
export function importPlan(
  book: readonly SpecSheet[],
  { sheets, positions, notUnderstood }: ReadBook,
  contentOf: (sheet: SpecSheet) => SheetContent,
): ImportPlan {
  const bySlug = new Map(book.map((sheet) => [sheet.slug, sheet]));
  const planned = sheets.map(({ slug: said, ...content }): SheetImport => {
    const ships = bySlug.get(said)?.own === undefined ? bySlug.get(said) : undefined;
    const isAsShipped = ships !== undefined && isSame(sheetDifferences(contentOf(ships), content));
    const slug = ships && !isAsShipped ? `own-${said}` : said;
    const current = bySlug.get(slug);
    const wrong = notUnderstood.filter(({ ids }) => ids?.sheet === said);
    const note =
      slug === said
        ? ''
        : `${ships?.name} ships with the program and stays as it is: this comes in as a sheet of your own.`;
    const badLines = wrong.map(
      ({ at, place, words }): ImportLine => ({ at, place, kind: 'not understood', words: [words] }),
    );
    if (!current) {
      const lines = content.places.map((place): ImportLine => {
        const at = positions.get(`${said}/${place.slug}`) ?? '';
        return { at, place: place.name, kind: 'new', words: [] };
      });
      return { slug, name: content.name, kind: 'new', version: null, lines: [...lines, ...badLines], content, note };
    }
    const before = contentOf(current);
    const kept = before.places.filter(
      ({ slug: place }) =>
        !content.places.some((one) => one.slug === place) && wrong.some(({ ids }) => ids?.place === place),
    );
    const gone = before.places.filter(
      (place) => !place.isAway && !kept.includes(place) && !content.places.some((one) => one.slug === place.slug),
    );
    const away = before.places.filter(
      (place) => place.isAway && !content.places.some((one) => one.slug === place.slug),
    );
    const after: SheetContent = {
      ...content,
      places: [...content.places, ...kept, ...away, ...gone.map((place) => ({ ...place, isAway: true as const }))],
    };
    const difference = sheetDifferences(before, after);
    const changes = new Map(difference.places.map((one) => [one.slug, one]));
    const lines = content.places.map((place): ImportLine => {
      const change = changes.get(place.slug);
      const at = positions.get(`${said}/${place.slug}`) ?? '';
      if (!change) return { at, place: place.name, kind: 'same', words: [] };
      if (change.kind === 'new') return { at, place: place.name, kind: 'new', words: [] };
      return { at, place: place.name, kind: 'changed', words: fieldWords(change) };
    });
    const goneLines = gone.map(
      ({ name }): ImportLine => ({ at: '', place: name, kind: 'gone', words: ['It is put away; its frames stay.'] }),
    );
    const about: ImportLine[] = difference.fields.map(({ label, before: then, after: now }) => ({
      at: positions.get(said) ?? '',
      place: '',
      kind: 'changed',
      words: [`${label}: ${then || 'nothing'} → ${now || 'nothing'}`],
    }));
    return {
      slug,
      name: content.name,
      kind: isSame(difference) ? 'same' : 'changed',
      version: current.own?.version ?? null,
      lines: [...about, ...lines, ...goneLines, ...badLines],
      content: after,
      note,
    };
  });
  const unread = notUnderstood
    .filter(({ ids }) => ids === null)
    .map(({ at, sheet, words }): ImportLine => ({ at, place: sheet, kind: 'not understood', words: [words] }));
  return { sheets: planned, notUnderstood: unread };
}
