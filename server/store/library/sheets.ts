import type { SheetContent, VersionWords } from '@inkwell/core/model';
import { and, asc, desc, eq, inArray, isNull, like, or, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { projects, sheets, sheetVersions, shelf } from '../schema/index.ts';

export type SheetRow = typeof sheets.$inferSelect;
export type VersionRow = typeof sheetVersions.$inferSelect;
/** A version of a sheet, by which its content can be asked for. */
export interface VersionOfSheet {
  sheetId: string;
  number: number;
}

/** All sheets that people made, in the order in which they were. */
export const listSheets = (db: Queryable): Promise<SheetRow[]> =>
  db.select().from(sheets).orderBy(asc(sheets.createdAt));

/** How sheets stand in the book, by slug. */
export async function shelfPlaces(db: Queryable): Promise<Map<string, typeof shelf.$inferSelect>> {
  return new Map((await db.select().from(shelf)).map((row) => [row.slug, row]));
}

/** Puts a sheet away, or takes it back. */
export async function setAway(db: Queryable, slug: string, isAway: boolean): Promise<void> {
  await db
    .insert(shelf)
    .values({ slug, isAway })
    .onConflictDoUpdate({ target: [shelf.workspaceId, shelf.slug], set: { isAway } });
}

/** Puts sheets into an order, from the top. */
export async function setOrder(db: Queryable, slugs: readonly string[]): Promise<void> {
  if (slugs.length === 0) return;
  await db
    .insert(shelf)
    .values(slugs.map((slug, position) => ({ slug, position })))
    .onConflictDoUpdate({ target: [shelf.workspaceId, shelf.slug], set: { position: sql`excluded.position` } });
}

/** All versions of sheets on which a project stays. */
export async function pinnedVersions(db: Queryable): Promise<{ slug: string; number: number }[]> {
  const rows = await db
    .selectDistinct({ pins: projects.pins })
    .from(projects)
    .where(and(isNull(projects.deletedAt), sql`${projects.pins} <> '{}'::jsonb`));
  return rows.flatMap(({ pins }) => Object.entries(pins).map(([slug, number]) => ({ slug, number })));
}

/** What some versions say. */
export async function readVersions(db: Queryable, wanted: readonly VersionOfSheet[]): Promise<VersionRow[]> {
  if (wanted.length === 0) return [];
  const byNumber = new Map<number, string[]>();
  for (const { sheetId, number } of wanted) byNumber.set(number, [...(byNumber.get(number) ?? []), sheetId]);
  const any = [...byNumber].map(([number, ids]) =>
    and(eq(sheetVersions.number, number), inArray(sheetVersions.sheetId, ids)),
  );
  return db
    .select()
    .from(sheetVersions)
    .where(or(...any));
}

/** All versions of a sheet, the newest first. */
export const versionsOf = (db: Queryable, sheetId: string): Promise<VersionRow[]> =>
  db.select().from(sheetVersions).where(eq(sheetVersions.sheetId, sheetId)).orderBy(desc(sheetVersions.number));

export async function findSheet(db: Queryable, by: { id: string } | { slug: string }): Promise<SheetRow | null> {
  const [row] = await db
    .select()
    .from(sheets)
    .where('id' in by ? eq(sheets.id, by.id) : eq(sheets.slug, by.slug));
  return row ?? null;
}

/** The slugs of sheets that begin in a way. */
export async function slugsFrom(db: Queryable, start: string): Promise<string[]> {
  const rows = await db
    .select({ slug: sheets.slug })
    .from(sheets)
    .where(like(sheets.slug, `${start}%`));
  return rows.map(({ slug }) => slug);
}

/** Keeps a new sheet with its first version. Run it in a transaction. */
export async function addSheet(
  db: Queryable,
  { slug, projectId = null }: { slug: string; projectId?: string | null },
  content: SheetContent,
  words: VersionWords,
): Promise<SheetRow> {
  const [row] = await db.insert(sheets).values({ slug, projectId }).returning();
  if (!row) throw new Error('The sheet was not stored.');
  const since = Object.fromEntries(content.places.map((place) => [place.slug, 1]));
  await db.insert(sheetVersions).values({ sheetId: row.id, number: 1, content, since, ...words });
  return row;
}

/** Keeps the next version of a sheet. Run it in a transaction in which the sheet is not changed elsewhere. */
export async function addVersion(
  db: Queryable,
  { id, version }: SheetRow,
  content: SheetContent,
  since: Record<string, number>,
  words: VersionWords,
): Promise<SheetRow> {
  const number = version + 1;
  await db.insert(sheetVersions).values({ sheetId: id, number, content, since, ...words });
  const [row] = await db.update(sheets).set({ version: number }).where(eq(sheets.id, id)).returning();
  if (!row) throw new Error('The sheet was not stored.');
  return row;
}
