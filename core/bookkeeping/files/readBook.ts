import { z } from 'zod';
import { type Place, SheetContentSchema, type SheetFile, SheetFileSchema, SlugSchema } from '../../model/index.ts';
import { problemsIn, problemWords } from '../problems.ts';
import { neededColumns, placeIn, type Read, type Row, sheetIn } from './columns.ts';

/** Something in a file that could not be taken, with where it stands there. */
export interface NotUnderstood {
  /** `Line 7`, or `Sheet 2, place 3`. */
  at: string;
  sheet: string;
  place: string;
  /** What is wrong, in words that name the field. */
  words: string;
  /** The ids that are meant, as far as they could be read: what is there stays as it is. */
  ids: { sheet: string; place: string | null } | null;
}

/** What a file says: sheets that can be taken, where their places stand in it, and what was not understood. */
export interface ReadBook {
  sheets: SheetFile[];
  /** Where a place stands in the file, by `sheet/place`; a sheet by its slug. */
  positions: Map<string, string>;
  notUnderstood: NotUnderstood[];
}

/** A file that cannot be read at all, in words. */
export interface Unreadable {
  unreadable: string;
}

/** A place that stands in a file, before it is validated. */
interface Found {
  at: string;
  place: Read | null;
}
interface FoundSheet {
  at: string;
  sheet: Read;
  places: Found[];
}

const text = (value: unknown): string => (typeof value === 'string' ? value : '');

/** Validates what was found, each place by itself: one that is wrong never spoils the rest. */
function validated(found: readonly FoundSheet[]): ReadBook {
  const sheets: SheetFile[] = [];
  const positions = new Map<string, string>();
  const notUnderstood: NotUnderstood[] = [];
  for (const { at, sheet, places } of found) {
    const outline = SheetFileSchema.safeParse({ ...sheet, places: [] });
    const name = text(sheet.name) || text(sheet.slug) || 'A sheet without a name';
    if (!outline.success) {
      const [problem] = problemsIn(sheet, outline.error);
      const words = problem ? problemWords(problem) : 'This sheet could not be understood.';
      notUnderstood.push({ at, sheet: name, place: '', words: `${words} None of its places is taken.`, ids: null });
      continue;
    }
    const { slug } = outline.data;
    const taken: Place[] = [];
    for (const { at: line, place } of places) {
      const wrong = (words: string) =>
        notUnderstood.push({
          at: line,
          sheet: name,
          place: text(place?.name) || text(place?.slug),
          words,
          ids: { sheet: slug, place: SlugSchema.safeParse(place?.slug).data ?? null },
        });
      const one = { ...outline.data, places: [place] };
      const read = SheetContentSchema.safeParse(one);
      const [parsed] = read.data?.places ?? [];
      if (!parsed) {
        const [problem] = problemsIn(one, read.error);
        wrong(problem ? problemWords(problem) : 'This place could not be understood.');
      } else if (positions.has(`${slug}/${parsed.slug}`)) {
        wrong(`This sheet has a place ${parsed.slug} already, at ${positions.get(`${slug}/${parsed.slug}`)}.`);
      } else {
        taken.push(parsed);
        positions.set(`${slug}/${parsed.slug}`, line);
      }
    }
    const known = sheets.find((one) => one.slug === slug);
    if (known) known.places.push(...taken);
    else {
      sheets.push({ ...outline.data, places: taken });
      positions.set(slug, at);
    }
  }
  return { sheets, positions, notUnderstood };
}

const FormatSchema = z.looseObject({ specBook: z.number() });
const RoughSchema = z.looseObject({
  sheets: z.array(z.looseObject({ places: z.array(z.looseObject({})).default([]) })),
});

/** The newest version of the format that is read. */
const newestFormat = 1;

/** Reads sheets from JSON. */
export function readBookJson(value: unknown): ReadBook | Unreadable {
  const format = FormatSchema.safeParse(value).data?.specBook;
  if (format === undefined) {
    return {
      unreadable:
        'This JSON file is no spec book: it has no number under “specBook”. Save one from a spec book and compare.',
    };
  }
  if (format > newestFormat) {
    return {
      unreadable: `This file is of version ${format} of the format; this program reads up to version ${newestFormat}. Open it with a newer version of the program, or save it as a table (CSV) there.`,
    };
  }
  const rough = RoughSchema.safeParse(value);
  if (!rough.success) return { unreadable: 'This file has no list of sheets, each with a list of places.' };
  return validated(
    rough.data.sheets.map(({ places, ...sheet }, index) => ({
      at: `Sheet ${index + 1}`,
      sheet,
      places: places.map((place, number) => ({ at: `Sheet ${index + 1}, place ${number + 1}`, place })),
    })),
  );
}

/** The first line of a table is its heads. */
const firstLine = 2;

/** Reads sheets from the rows of a table, whose empty cells are left out. */
export function readBookRows(columns: readonly string[], rows: readonly Row[]): ReadBook | Unreadable {
  const missing = neededColumns.filter((column) => !columns.includes(column));
  if (missing.length > 0) {
    return {
      unreadable: `This table has no column ${missing.map((column) => `“${column}”`).join(', ')}. Save a sheet as a table to see which columns there are.`,
    };
  }
  const found = new Map<string, FoundSheet>();
  for (const [index, row] of rows.entries()) {
    const at = `Line ${index + firstLine}`;
    const key = row.sheet_id ?? '';
    const sheet = found.get(key) ?? { at, sheet: sheetIn(row), places: [] };
    found.set(key, sheet);
    const place = placeIn(row);
    if (place) sheet.places.push({ at, place });
  }
  return validated([...found.values()]);
}
