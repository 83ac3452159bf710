import type { FontFamily } from '@inkwell/core/model';
import { asc, count, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { ownFonts, projects } from '../schema/index.ts';
import { setDeleted } from '../setDeleted.ts';

/** A font of a person's own, and the blob that holds it. */
export type OwnFont = Omit<typeof ownFonts.$inferSelect, 'workspaceId' | 'createdAt' | 'deletedAt'> & {
  isPutAside: boolean;
};

/** All of them, those that were put aside among them: words may still be set in these. */
export async function listOwnFonts(db: Queryable): Promise<OwnFont[]> {
  const rows = await db.select().from(ownFonts).orderBy(asc(ownFonts.createdAt), asc(ownFonts.id));
  return rows.map(({ workspaceId: _workspace, createdAt: _, deletedAt, ...font }) => ({
    ...font,
    isPutAside: deletedAt !== null,
  }));
}

/** How many there are that are not put aside. */
export async function countOwnFonts(db: Queryable): Promise<number> {
  const [row] = await db.select({ count: count() }).from(ownFonts).where(isNull(ownFonts.deletedAt));
  return row?.count ?? 0;
}

/** Keeps a font. The same file again is the same font, taken back where it was put aside. */
export async function keepOwnFont(db: Queryable, font: Omit<OwnFont, 'isPutAside'>): Promise<void> {
  await db
    .insert(ownFonts)
    .values(font)
    .onConflictDoUpdate({ target: [ownFonts.workspaceId, ownFonts.id], set: { deletedAt: null } });
}

/** Puts a font aside (`deleted` true) or takes it back. Words that are set in it stay as they are. */
export const setOwnFontDeleted = (db: Queryable, id: string, deleted: boolean): Promise<boolean> =>
  setDeleted(db, ownFonts, id, deleted);

/** Projects whose words ask for a family. */
export async function projectsInFamily(db: Queryable, family: FontFamily['id']): Promise<string[]> {
  const asked = JSON.stringify([{ style: { family } }]);
  const rows = await db.select({ id: projects.id }).from(projects).where(sql`${projects.lettering} @> ${asked}::jsonb`);
  return rows.map(({ id }) => id);
}
