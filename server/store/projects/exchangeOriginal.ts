import { and, eq, sql } from 'drizzle-orm';
import { UserError } from '../../userError.ts';
import type { Queryable } from '../database.ts';
import { setOriginalDeleted } from '../library/originals.ts';
import { frames, projectOriginals, projects } from '../schema.ts';

/**
 * Puts one original in the place of another in a project: in its order, in its frames, and in the words that are shown on it alone.
 *
 * @throws UserError where the project has it already
 */
export async function exchangeOriginal(db: Queryable, projectId: string, from: string, to: string): Promise<void> {
  const ofProject = eq(projectOriginals.projectId, projectId);
  const [there] = await db
    .select()
    .from(projectOriginals)
    .where(and(ofProject, eq(projectOriginals.originalId, to)));
  if (there)
    throw new UserError('This project has the drawing with those words already. Take one of the two out first.', 409);
  await setOriginalDeleted(db, to, false);
  await db
    .update(projectOriginals)
    .set({ originalId: to })
    .where(and(ofProject, eq(projectOriginals.originalId, from)));
  await db
    .update(frames)
    .set({ originalId: to, version: sql`${frames.version} + 1` })
    .where(and(eq(frames.projectId, projectId), eq(frames.originalId, from)));
  const [project] = await db.select({ lettering: projects.lettering }).from(projects).where(eq(projects.id, projectId));
  const lettering = (project?.lettering ?? []).map((item) => ({
    ...item,
    originalIds: item.originalIds?.map((id) => (id === from ? to : id)) ?? null,
  }));
  await db
    .update(projects)
    .set({ lettering, version: sql`${projects.version} + 1`, changedAt: new Date() })
    .where(eq(projects.id, projectId));
}

/** Puts an original aside that no project has chosen. */
export async function putAsideIfUnused(db: Queryable, id: string): Promise<void> {
  const [used] = await db.select().from(projectOriginals).where(eq(projectOriginals.originalId, id)).limit(1);
  if (!used) await setOriginalDeleted(db, id, true);
}
