import {
  type ReadBook,
  type Row,
  readBookJson,
  readBookRows,
  tableOf,
  type Unreadable,
} from '@inkwell/core/bookkeeping';
import type { BookFile, SheetFile } from '@inkwell/core/model';
import Papa from 'papaparse';
import { isAllStorable } from '../../database/storable.ts';

/** By this a spreadsheet knows that a table is in UTF-8. */
const byteOrderMark = '\uFEFF';

/** Sheets as JSON: see docs/formats/spec-sheet.schema.json. */
export const bookAsJson = (sheets: readonly SheetFile[]): string => {
  const file: BookFile = { specBook: 1, sheets: [...sheets] };
  return `${JSON.stringify(file, null, 2)}\n`;
};

/** Sheets as a table that opens in a spreadsheet: one place a row. */
export function bookAsCsv(sheets: readonly SheetFile[]): string {
  const { columns, rows } = tableOf(sheets);
  const cells = rows.map((row) => columns.map((column) => row[column] ?? ''));
  return `${byteOrderMark}${Papa.unparse([columns, ...cells], { newline: '\r\n' })}\r\n`;
}

/** Reads sheets from either, whatever it is called. */
export function readBook(text: string): ReadBook | Unreadable {
  const bare = text.startsWith(byteOrderMark) ? text.slice(1) : text;
  if (bare.trim() === '') return { unreadable: 'This file is empty.' };
  if (/^\s*[{[]/.test(bare)) return readJson(bare);
  const { data, errors } = Papa.parse<string[]>(bare, { skipEmptyLines: 'greedy' });
  const broken = errors.find(({ type }) => type === 'Quotes');
  if (broken) {
    return {
      unreadable: `This table breaks off in line ${(broken.row ?? 0) + 1}: a quotation mark is not closed there.`,
    };
  }
  const [columns = [], ...lines] = data;
  const names = columns.map((name) => name.trim());
  return readBookRows(
    names,
    lines.map((cells) => rowOf(names, cells)),
  );
}

function readJson(text: string): ReadBook | Unreadable {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    const where = error instanceof Error ? `: ${error.message}` : '';
    return { unreadable: `This looks like JSON and is not readable as such${where}.` };
  }
  if (!isAllStorable(value)) {
    return {
      unreadable: 'A text in this file holds a character that cannot be stored: U+0000, or half of a character.',
    };
  }
  return readBookJson(value);
}

/** The cells of a line that are not empty, by their columns. */
function rowOf(columns: readonly string[], cells: readonly string[]): Row {
  const row: Row = {};
  for (const [index, column] of columns.entries()) {
    const cell = cells[index]?.trim() ?? '';
    if (cell !== '') row[column] = cell;
  }
  return row;
}
