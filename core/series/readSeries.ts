import { NameSchema, type PictureWords, PictureWordsSchema, type SeriesRow, type WordsItem } from '../model/index.ts';
import type { Meaning, Understood } from './meanings.ts';
import type { NamedPicture, PictureFinder } from './pictureFinder.ts';
import type { PlaceFinder } from './placeFinder.ts';

/** A row of a table as it was read. */
export interface ReadRow {
  /** Where it stands in the table, from 1; the heads count. */
  number: number;
  /** What it names its picture, or what that is called. */
  picture: string;
  /** Null where something is wrong with it. */
  row: SeriesRow | null;
  problems: string[];
}

/** What rows are read by. */
export interface ReadingBy {
  items: readonly WordsItem[];
  /** In the order of the project: what rows are about where no column names a picture. */
  pictures: readonly NamedPicture[];
  findPicture: PictureFinder;
  findPlace: PlaceFinder;
}

/** Reads the rows of a table: each by itself, so that one that is wrong never spoils the rest. */
export function readSeries(cells: readonly string[][], { meanings, hasHeads }: Understood, by: ReadingBy): ReadRow[] {
  const first = hasHeads ? 1 : 0;
  return cells.slice(first).map((row, at) => readRow(row, at, at + first + 1, meanings, by));
}

function readRow(
  cells: readonly string[],
  at: number,
  number: number,
  meanings: readonly Meaning[],
  { items, pictures, findPicture, findPlace }: ReadingBy,
): ReadRow {
  const cell = (meaning: Meaning): string | null => {
    const column = meanings.indexOf(meaning);
    return column < 0 ? null : (cells[column] ?? '');
  };
  const problems: string[] = [];
  const named = cell('picture');
  const picture = named === null ? nth(pictures, at) : findPicture(named);
  if ('problem' in picture) problems.push(picture.problem);
  const name = NameSchema.nullable().safeParse(cell('name') || null);
  if (!name.success) problems.push(name.error.issues[0]?.message ?? 'A picture cannot be called that.');
  const words: Record<string, PictureWords> = {};
  for (const item of items) {
    const [text, short] = [cell(`words ${item.id}`), cell(`short ${item.id}`)];
    if (text === null && short === null) continue;
    // Words of a row are whole: the short version of others is not about them.
    const read = PictureWordsSchema.safeParse({
      text: text ?? item.text,
      short: short ?? (text === null ? item.short : ''),
    });
    if (read.success) words[item.id] = read.data;
    else
      problems.push(`${item.name}: ${read.error.issues[0]?.message ?? 'These words cannot be laid over a picture.'}`);
  }
  const asked = placesIn(cell('places'));
  const found = asked.map((one) => [one, findPlace(one)] as const);
  for (const [one, id] of found) {
    if (id === null)
      problems.push(`${one} is no place, or more than one. Name it as the spec book does, such as sunpane/story.`);
  }
  const placeIds = [...new Set(found.flatMap(([, id]) => id ?? []))];
  const isRead = problems.length === 0 && 'id' in picture && name.success;
  return {
    number,
    picture: named?.trim() || ('name' in picture ? picture.name : ''),
    row: isRead
      ? { originalId: picture.id, name: name.data, words, placeIds: placeIds.length > 0 ? placeIds : null }
      : null,
    problems,
  };
}

const nth = (pictures: readonly NamedPicture[], at: number): NamedPicture | { problem: string } =>
  pictures[at] ?? {
    problem: `There is no picture for it: the project has ${pictures.length}. Add one, or give the table a column that names pictures.`,
  };

const placesIn = (cell: string | null): string[] =>
  (cell ?? '')
    .split(/[,;\n]/)
    .map((one) => one.trim())
    .filter((one) => one !== '');
