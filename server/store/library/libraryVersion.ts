import type { Queryable } from '../database.ts';
import { prepared } from '../prepared.ts';
import { libraryVersions } from '../schema/index.ts';

const versions = prepared((db) => db.select().from(libraryVersions).prepare('library_version'));

/**
 * A number that rises with every change of an own place, a font or a finish, in the transaction that makes it. Whoever reads them after
 * the number has them as they were then, or newer: as long as it stays the same, they need not be read again.
 */
export async function libraryVersion(db: Queryable): Promise<number> {
  const [row] = await versions(db).execute();
  // Nothing was ever changed in this workspace.
  return row?.number ?? 0;
}
