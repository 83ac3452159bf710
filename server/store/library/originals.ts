import type { Original, OriginalSettings, Rewritten } from '@inkwell/core/model';
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { keepFile } from '../blobs/blobs.ts';
import type { Database, Queryable } from '../database.ts';
import { originals } from '../schema/index.ts';
import { setDeleted } from '../setDeleted.ts';

type Row = typeof originals.$inferSelect;

export function toOriginal({ deletedAt: _, workspaceId: _workspace, addedBy: _by, ...row }: Row): Original {
  return { ...row, createdAt: row.createdAt.toISOString() };
}

export type NewOriginal = Omit<
  Original,
  'id' | 'createdAt' | Exclude<keyof OriginalSettings, 'words'> | 'version' | 'rewritten'
>;
/** What an original that was made from another has from it. */
export type KeptOfOriginal = Partial<Pick<Original, 'name' | 'rewritten'>>;

/** Keeps the bytes of `path`, the original they make up, and what comes of it: all of it or nothing. */
export function addOriginal(
  db: Database,
  original: NewOriginal & KeptOfOriginal,
  path: string,
  also: (tx: Queryable, added: Original) => Promise<void> = async () => undefined,
): Promise<Original> {
  return db.transaction(async (tx) => {
    await keepFile(tx, path, original.sha256, original.bytes);
    const [row] = await tx.insert(originals).values(original).returning();
    if (!row) throw new Error('The original was not stored.');
    const added = toOriginal(row);
    await also(tx, added);
    return added;
  });
}

/** Newest first. */
export async function listOriginals(db: Queryable): Promise<Original[]> {
  const rows = await db.select().from(originals).where(isNull(originals.deletedAt)).orderBy(desc(originals.createdAt));
  return rows.map(toOriginal);
}

export async function findOriginal(db: Queryable, id: string): Promise<Original | null> {
  const [row] = await db
    .select()
    .from(originals)
    .where(and(eq(originals.id, id), isNull(originals.deletedAt)));
  return row ? toOriginal(row) : null;
}

/** The same, also where it was put aside and has not been cleared away. */
export async function findEvenPutAside(db: Queryable, id: string): Promise<Original | null> {
  const [row] = await db.select().from(originals).where(eq(originals.id, id));
  return row ? toOriginal(row) : null;
}

/** Whether originals are all there. */
export async function areThere(db: Queryable, ids: readonly string[]): Promise<boolean> {
  const wanted = [...new Set(ids)];
  if (wanted.length === 0) return true;
  const rows = await db
    .select({ id: originals.id })
    .from(originals)
    .where(and(inArray(originals.id, wanted), isNull(originals.deletedAt)));
  return rows.length === wanted.length;
}

export async function renameOriginal(db: Queryable, id: string, name: string): Promise<Original | null> {
  const [row] = await db
    .update(originals)
    .set({ name })
    .where(and(eq(originals.id, id), isNull(originals.deletedAt)))
    .returning();
  return row ? toOriginal(row) : null;
}

/** Saves marks or trim, changed on top of `version`. Null where somebody else saved meanwhile, or the original is gone. */
export async function saveOriginalSettings(
  db: Queryable,
  id: string,
  version: number,
  change: Partial<OriginalSettings>,
): Promise<Original | null> {
  const [row] = await db
    .update(originals)
    .set({ ...change, version: sql`${originals.version} + 1` })
    .where(and(eq(originals.id, id), eq(originals.version, version), isNull(originals.deletedAt)))
    .returning();
  return row ? toOriginal(row) : null;
}

/** An original of another page over the same bytes; nothing of what people set is taken over but the words. */
export async function addPage(
  db: Queryable,
  { name, fileName, sha256, bytes, format, pages, words, origin }: Original,
  page: Pick<Original, 'page' | 'width' | 'height' | 'hasAlpha'>,
): Promise<Original> {
  const values = { name: `${name} ${page.page + 1}`, fileName, sha256, bytes, format, pages, words, origin, ...page };
  const [row] = await db.insert(originals).values(values).returning();
  if (!row) throw new Error('The page was not stored.');
  return toOriginal(row);
}

/** Originals by their ids, as far as they are there. */
export async function findOriginals(db: Queryable, ids: readonly string[]): Promise<Original[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select()
    .from(originals)
    .where(and(inArray(originals.id, [...ids]), isNull(originals.deletedAt)));
  return rows.map(toOriginal);
}

/** The originals of a page of a file, the oldest first. */
export async function findAlike(
  db: Queryable,
  { sha256, page }: Pick<Original, 'sha256' | 'page'>,
): Promise<Original[]> {
  const rows = await db
    .select()
    .from(originals)
    .where(and(eq(originals.sha256, sha256), eq(originals.page, page), isNull(originals.deletedAt)))
    .orderBy(asc(originals.createdAt));
  return rows.map(toOriginal);
}

/** Says from which drawing an original was rewritten, and how. */
export async function keepRewritten(db: Queryable, id: string, rewritten: Rewritten): Promise<void> {
  await db.update(originals).set({ rewritten }).where(eq(originals.id, id));
}

/** A second original over the same bytes. @param name what it is called; left out, it is said to be a copy */
export async function duplicateOriginal(db: Queryable, id: string, name?: string): Promise<Original | null> {
  const original = await findOriginal(db, id);
  if (!original) return null;
  const { id: _, createdAt: __, version: ___, ...values } = original;
  const [row] = await db
    .insert(originals)
    .values({ ...values, name: name ?? `${original.name} copy` })
    .returning();
  return row ? toOriginal(row) : null;
}

/** Puts an original aside (`deleted` true) or takes it back. Nothing is cleared away yet. */
export const setOriginalDeleted = (db: Queryable, id: string, deleted: boolean): Promise<boolean> =>
  setDeleted(db, originals, id, deleted);
