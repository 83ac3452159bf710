import { contentOf, type Place, type SheetContent, type SheetFile, type SpecSheet } from '../../model/index.ts';
import { isSame, sheetDifferences } from '../differences.ts';
import { freeSlug } from '../slugs.ts';
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

/** A sheet of a file: under which id it is taken, what it says, and where its lines stand. */
interface ReadSheet {
  slug: string;
  content: SheetContent;
  note: string;
  /** Where the line of a place stands; of the sheet's own line where no place is named. */
  positionOf: (place?: string) => string;
  /** Places of it that are there and could not be understood. */
  badPlaces: ReadonlySet<string>;
  badLines: ImportLine[];
}

/**
 * What a file would do to the book. Nothing is taken out: a place that the file does not have is put away, and one that could not be
 * understood stays as it is. A sheet that ships with the program stays too: what a file says otherwise comes in as one of one's own.
 */
export function importPlan(book: readonly SpecSheet[], read: ReadBook): ImportPlan {
  const bySlug = new Map(book.map((sheet) => [sheet.slug, sheet]));
  const taken = new Set(read.sheets.map(({ slug }) => slug));
  const sheets = read.sheets.map((file) => {
    const sheet = readSheet(file, read, bySlug, taken);
    const current = bySlug.get(sheet.slug);
    return current ? changedSheet(sheet, current) : newSheet(sheet);
  });
  const notUnderstood = read.notUnderstood
    .filter(({ ids }) => ids === null)
    .map(({ at, sheet, words }): ImportLine => ({ at, place: sheet, kind: 'not understood', words: [words] }));
  return { sheets, notUnderstood };
}

/** @param taken the ids of all sheets of the file */
function readSheet(
  { slug: said, ...content }: SheetFile,
  { positions, notUnderstood }: ReadBook,
  book: ReadonlyMap<string, SpecSheet>,
  taken: ReadonlySet<string>,
): ReadSheet {
  const known = book.get(said);
  const staysAsItShips =
    known !== undefined && !known.own && !isSame(sheetDifferences(contentOf(known), content)) ? known : null;
  const wrong = notUnderstood.filter(({ ids }) => ids?.sheet === said);
  return {
    slug: staysAsItShips ? freeSlug(`own-${said}`, taken) : said,
    content,
    note: staysAsItShips
      ? `${staysAsItShips.name} ships with the program and stays as it is: this comes in as a sheet of your own.`
      : '',
    positionOf: (place) => positions.get(place === undefined ? said : `${said}/${place}`) ?? '',
    badPlaces: new Set(wrong.flatMap(({ ids }) => ids?.place ?? [])),
    badLines: wrong.map(({ at, place, words }) => ({ at, place, kind: 'not understood', words: [words] })),
  };
}

function newSheet({ slug, content, note, positionOf, badLines }: ReadSheet): SheetImport {
  const lines = content.places.map(
    (place): ImportLine => ({ at: positionOf(place.slug), place: place.name, kind: 'new', words: [] }),
  );
  return { slug, name: content.name, kind: 'new', version: null, lines: [...lines, ...badLines], content, note };
}

function changedSheet(
  { slug, content, note, positionOf, badPlaces, badLines }: ReadSheet,
  current: SpecSheet,
): SheetImport {
  const before = contentOf(current);
  const inFile = new Set(content.places.map((place) => place.slug));
  const missing = before.places.filter((place) => !inFile.has(place.slug));
  const isGone = (place: Place) => !place.isAway && !badPlaces.has(place.slug);
  const after: SheetContent = {
    ...content,
    places: [
      ...content.places,
      ...missing.map((place) => (isGone(place) ? { ...place, isAway: true as const } : place)),
    ],
  };
  const difference = sheetDifferences(before, after);
  const changes = new Map(difference.places.map((change) => [change.slug, change]));
  const lines = content.places.map((place): ImportLine => {
    const { kind = 'same', fields = [] } = changes.get(place.slug) ?? {};
    return { at: positionOf(place.slug), place: place.name, kind, words: fields.map(changeWords) };
  });
  const goneLines = missing
    .filter(isGone)
    .map(
      ({ name }): ImportLine => ({ at: '', place: name, kind: 'gone', words: ['It is put away; its frames stay.'] }),
    );
  const about = difference.fields.map(
    (field): ImportLine => ({ at: positionOf(), place: '', kind: 'changed', words: [changeWords(field)] }),
  );
  return {
    slug,
    name: content.name,
    kind: isSame(difference) ? 'same' : 'changed',
    version: current.own?.version ?? null,
    lines: [...about, ...lines, ...goneLines, ...badLines],
    content: after,
    note,
  };
}

const changeWords = ({ label, before, after }: { label: string; before: string; after: string }): string =>
  `${label}: ${before || 'nothing'} → ${after || 'nothing'}`;
