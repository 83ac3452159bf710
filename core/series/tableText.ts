import Papa from 'papaparse';
import { mostRows, type Original, type WordsItem } from '../model/index.ts';
import { wordsOn } from './wordsOn.ts';

/** The rows of a table with the text of each cell, or why there are none. */
export type ReadTable = { cells: string[][] } | { unreadable: string };

/** More columns than these are no table of pictures and words. */
const mostColumns = 40;

/**
 * Reads a table: what a spreadsheet gives when it is copied, with tabs between cells, or a CSV file with commas or semicolons. Empty lines are
 * left out, and all rows have as many cells as the longest.
 */
export function readTable(text: string): ReadTable {
  const bare = text.replace(/^\uFEFF/, '');
  const { data, errors } = Papa.parse<string[]>(bare, { skipEmptyLines: 'greedy', delimiter: delimiterOf(bare) });
  const broken = errors.find(({ type }) => type === 'Quotes');
  if (broken) {
    return {
      unreadable: `This table breaks off in row ${(broken.row ?? 0) + 1}: a quotation mark is not closed there. Close it, or write two for one that is meant.`,
    };
  }
  if (data.length === 0) {
    return { unreadable: 'This table is empty. Paste rows of a spreadsheet, or choose a CSV file.' };
  }
  const width = Math.max(...data.map((row) => row.length));
  if (width > mostColumns) {
    return {
      unreadable: `This table has ${width} columns; it can have at most ${mostColumns}. Leave out those that are not needed.`,
    };
  }
  // One more than a series can have: the first may be heads.
  if (data.length > mostRows + 1) {
    return {
      unreadable: `This table has ${data.length} rows; a series can have at most ${mostRows}. Divide it into several projects.`,
    };
  }
  return { cells: data.map((row) => Array.from({ length: width }, (_, at) => row[at]?.trim() ?? '')) };
}

/** The cells that a spreadsheet gives when they are copied, empty ones and empty lines included; null where a text is that of one cell. */
export function pastedCells(text: string): string[][] | null {
  if (!/[\t\n]/.test(text)) return null;
  return Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data;
}

/** What lies between cells: whatever of it the first line has, tabs before all else. A table of one column has none of them. */
function delimiterOf(text: string): string {
  const [first = ''] = text.trimStart().split('\n');
  const counts = ['\t', ';', ','].map((delimiter) => [delimiter, first.split(delimiter).length] as const);
  const [[tab, tabs] = ['\t', 1], [semicolon, semicolons] = [';', 1], [comma, commas] = [',', 1]] = counts;
  if (tabs > 1) return tab;
  return semicolons > commas ? semicolon : comma;
}

/** By this a spreadsheet knows that a table is in UTF-8. */
const byteOrderMark = '\uFEFF';

/** Writes a series as a table that a spreadsheet opens, and that is read as it was. @param placesOf the ids of the places that a picture has */
export function seriesTable(
  items: readonly WordsItem[],
  pictures: readonly Pick<Original, 'id' | 'name'>[],
  placesOf: (originalId: string) => readonly string[],
): string {
  const columns = items.flatMap((item) => {
    const hasShort = pictures.some(({ id }) => wordsOn(item, id).short !== '');
    const text = { head: item.name, on: (id: string) => wordsOn(item, id).text };
    return hasShort ? [text, { head: `${item.name} short`, on: (id: string) => wordsOn(item, id).short }] : [text];
  });
  const heads = ['picture', ...columns.map(({ head }) => head), 'places'];
  const rows = pictures.map(({ id, name }) => [name, ...columns.map(({ on }) => on(id)), placesOf(id).join(', ')]);
  return `${byteOrderMark}${Papa.unparse([heads, ...rows], { newline: '\r\n' })}\r\n`;
}
