import { type SheetContent, SheetContentSchema, type SheetVersion } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { findSheet, readVersions, type SheetRow, type VersionRow, versionsOf } from '../../store/library/sheets.ts';
import { orNotFound } from '../../userError.ts';

const what = 'This sheet';

/** Content as it is read again: what an earlier version of the program let through and this one does not is left out. */
export function readContent({ content }: VersionRow): SheetContent {
  const whole = SheetContentSchema.safeParse(content).data;
  if (whole) return whole;
  const places = content.places.filter(
    (place) => SheetContentSchema.safeParse({ ...content, places: [place] }).success,
  );
  return SheetContentSchema.parse({ ...content, places });
}

/** The newest version of a sheet. @throws UserError where it is not there */
export async function newestVersion(tx: Queryable, { id, version }: SheetRow): Promise<VersionRow> {
  const [row] = await readVersions(tx, [{ sheetId: id, number: version }]);
  return orNotFound(row, what);
}

/** What that says. */
export const newestContent = async (tx: Queryable, row: SheetRow): Promise<SheetContent> =>
  readContent(await newestVersion(tx, row));

/** A version as it is shown. */
export const toVersion = (row: VersionRow): SheetVersion => ({
  number: row.number,
  savedAt: row.savedAt.toISOString(),
  savedBy: row.savedBy,
  note: row.note,
  content: readContent(row),
});

/** All versions of a sheet, the newest first. @throws UserError where it is not there */
export async function sheetVersions({ db }: Pick<Services, 'db'>, id: string): Promise<SheetVersion[]> {
  orNotFound(await findSheet(db, { id }), what);
  return (await versionsOf(db, id)).map(toVersion);
}
