import { readFile } from 'node:fs/promises';
import { basename, parse } from 'node:path';
import type { Lettering, OpenProject, Original, PlaceOfNetwork, SeriesRow } from '@inkwell/core/model';
import { pictureFinder, placeFinder, type ReadRow, readSeries, readTable, understood } from '@inkwell/core/series';
import type { Services } from '../../services.ts';
import { takeRows, tryRows } from '../../tasks/projects/series.ts';
import { Misuse } from '../codes.ts';
import { fileProblem } from '../failures.ts';

/** A row of a table that was not framed, or not as it says, and why. */
export interface DoubtfulRow {
  row: number;
  picture: string;
  reasons: string[];
}

/**
 * Reads a table whose rows name pictures by their files.
 *
 * @param files paths of the pictures; they stand in the rows for originals until those are there
 * @throws Misuse where there is no table, or nothing in it can be understood
 */
export async function seriesRows(
  path: string,
  files: readonly string[],
  lettering: Lettering,
  places: ReadonlyMap<string, PlaceOfNetwork>,
): Promise<ReadRow[]> {
  const text = await readFile(path, 'utf8').catch((error: unknown) => {
    throw new Misuse(fileProblem(error, path) ?? `${path} cannot be read.`);
  });
  const table = readTable(text);
  if ('unreadable' in table) throw new Misuse(`${path}: ${table.unreadable}`);
  const pictures = files.map((file) => ({
    id: file,
    name: parse(file).name,
    fileName: basename(file),
    sha256: file,
    page: 0,
  }));
  const items = lettering.flatMap((item) => (item.kind === 'words' ? [item] : []));
  const findPicture = pictureFinder(pictures, []);
  const meant = understood(table.cells, items, findPicture);
  if (!meant.hasHeads && !meant.meanings.includes('picture')) {
    throw new Misuse(
      `No column of ${path} names pictures, and no head says what a column is. Begin it with heads such as picture,title.`,
    );
  }
  const rows = readSeries(table.cells, meant, { items, pictures, findPicture, findPlace: placeFinder(places) });
  if (rows.some(({ row }) => row !== null)) return rows;
  const why = rows.map(({ number, problems }) => `Row ${number}: ${problems.join(' ')}`);
  throw new Misuse(`Nothing in ${path} can be framed.\n${why.join('\n') || 'It has no row beside its heads.'}`);
}

/** The files that rows name, in the order of the rows. */
export const filesNamed = (rows: readonly ReadRow[]): string[] => [
  ...new Set(rows.flatMap(({ row }) => row?.originalId ?? [])),
];

/** Gives the pictures of a project what rows say of them. @param takenAs the originals of files that were taken in */
export async function withSeries(
  services: Services,
  project: OpenProject,
  rows: readonly ReadRow[],
  placeIds: string[],
  takenAs: ReadonlyMap<string, Original>,
): Promise<{ project: OpenProject; doubtful: DoubtfulRow[] }> {
  const doubtful: DoubtfulRow[] = [];
  const laid = rows.flatMap(({ number, picture, row, problems }) => {
    const original = row && takenAs.get(row.originalId);
    // A file that was not taken in is told of with its reason already.
    if (!row) doubtful.push({ row: number, picture, reasons: problems });
    return row && original ? [{ number, picture, row: { ...row, originalId: original.id } satisfies SeriesRow }] : [];
  });
  const series = { rows: laid.map(({ row }) => row), placeIds };
  for (const [at, { findings }] of (await tryRows(services, project.id, series)).entries()) {
    const { number: row = 0, picture = '' } = laid[at] ?? {};
    if (findings.length > 0) doubtful.push({ row, picture, reasons: findings });
  }
  doubtful.sort((a, b) => a.row - b.row);
  return { project: await takeRows(services, project.id, project.version, series), doubtful };
}
