import { eq } from 'drizzle-orm';
import type { Queryable } from './database.ts';
import type { finishes, letterStyles, originals, ownFonts, placeSets, projects, webhooks } from './schema/index.ts';

type Deletable =
  | typeof finishes
  | typeof letterStyles
  | typeof originals
  | typeof ownFonts
  | typeof placeSets
  | typeof projects
  | typeof webhooks;

/** Puts a row aside (`deleted` true) or takes it back. False where there is no such row. */
export async function setDeleted(db: Queryable, table: Deletable, id: string, deleted: boolean): Promise<boolean> {
  const rows = await db
    .update(table)
    .set({ deletedAt: deleted ? new Date() : null })
    .where(eq(table.id, id))
    .returning({ id: table.id });
  return rows.length > 0;
}
