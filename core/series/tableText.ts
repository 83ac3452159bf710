import Papa from 'papaparse';
import { mostRows } from '../model/index.ts';

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

/** What lies between cells: whatever of it the first line has, tabs before all else. A table of one column has none of them. */
function delimiterOf(text: string): string {
  const [first = ''] = text.trimStart().split('\n');
  const counts = ['\t', ';', ','].map((delimiter) => [delimiter, first.split(delimiter).length] as const);
  const [[tab, tabs] = ['\t', 1], [semicolon, semicolons] = [';', 1], [comma, commas] = [',', 1]] = counts;
  if (tabs > 1) return tab;
  return semicolons > commas ? semicolon : comma;
}
