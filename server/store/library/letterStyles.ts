import type { LetterStyleSettings, NamedLetterStyle } from '@inkwell/core/model';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { letterStyles } from '../schema/index.ts';
import { setDeleted } from '../setDeleted.ts';

type Row = typeof letterStyles.$inferSelect;

const toStyle = ({ id, name, style }: Row): NamedLetterStyle => ({ id, name, style, shipped: false });

/** Those that people made, in the order in which they were made. */
export async function listLetterStyles(db: Queryable): Promise<NamedLetterStyle[]> {
  const rows = await db
    .select()
    .from(letterStyles)
    .where(isNull(letterStyles.deletedAt))
    .orderBy(asc(letterStyles.createdAt), asc(letterStyles.id));
  return rows.map(toStyle);
}

export async function findLetterStyle(db: Queryable, id: string): Promise<NamedLetterStyle | null> {
  const [row] = await db
    .select()
    .from(letterStyles)
    .where(and(eq(letterStyles.id, id), isNull(letterStyles.deletedAt)));
  return row ? toStyle(row) : null;
}

export async function addLetterStyle(db: Queryable, settings: LetterStyleSettings): Promise<NamedLetterStyle> {
  const [row] = await db.insert(letterStyles).values(settings).returning();
  if (!row) throw new Error('The style was not stored.');
  return toStyle(row);
}

/** Puts a style aside (`deleted` true) or takes it back. Words that have it keep it: it was copied to them. */
export const setLetterStyleDeleted = (db: Queryable, id: string, deleted: boolean): Promise<boolean> =>
  setDeleted(db, letterStyles, id, deleted);
