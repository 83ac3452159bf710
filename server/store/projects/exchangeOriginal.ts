import type { Item } from '@inkwell/core/model';
import { and, eq, sql } from 'drizzle-orm';
import { UserError } from '../../userError.ts';
import type { Queryable } from '../database.ts';
import { setOriginalDeleted } from '../library/originals.ts';
import { frames, originals, projectOriginals, projects } from '../schema/index.ts';

/**
 * Puts one original in the place of another in a project: in its order, in its frames, and in the words that are shown on it alone. It
 * has all that was set on the other, unless some other project shows it as it is.
 *
 * @throws UserError where the project has it already, or has the other no more
 */
export async function exchangeOriginal(db: Queryable, projectId: string, from: string, to: string): Promise<void> {
  const ofProject = eq(projectOriginals.projectId, projectId);
  const chosen = await db.select({ id: projectOriginals.originalId }).from(projectOriginals).where(ofProject);
  if (!chosen.some(({ id }) => id === from)) {
    throw new UserError(
      'This drawing was changed in another window. Open the project again, and change it there.',
      409,
    );
  }
  if (chosen.some(({ id }) => id === to)) {
    throw new UserError('This project has the drawing with those words already. Take one of the two out first.', 409);
  }
  if (!(await isChosen(db, to))) await takeSettings(db, from, to);
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
  const exchanged = (id: string) => (id === from ? to : id);
  const lettering = (project?.lettering ?? []).map((item): Item => {
    const originalIds = item.originalIds?.map(exchanged) ?? null;
    if (item.kind !== 'words' || !item.onPictures) return { ...item, originalIds };
    const own = Object.entries(item.onPictures).map(([id, words]) => [exchanged(id), words]);
    return { ...item, originalIds, onPictures: Object.fromEntries(own) };
  });
  await db
    .update(projects)
    .set({ lettering, version: sql`${projects.version} + 1`, changedAt: new Date() })
    .where(eq(projects.id, projectId));
}

const isChosen = async (db: Queryable, id: string): Promise<boolean> =>
  (await db.select().from(projectOriginals).where(eq(projectOriginals.originalId, id)).limit(1)).length > 0;

/** Gives an original all that people have set on another. */
async function takeSettings(db: Queryable, from: string, to: string): Promise<void> {
  const { marks, decided, trim, finishId, blend, words } = originals;
  const [set] = await db
    .select({ marks, decided, trim, finishId, blend, words })
    .from(originals)
    .where(eq(originals.id, from));
  if (!set) return;
  await db
    .update(originals)
    .set({ ...set, version: sql`${originals.version} + 1` })
    .where(eq(originals.id, to));
}

/** Puts an original aside that no project has chosen. */
export async function putAsideIfUnused(db: Queryable, id: string): Promise<void> {
  if (!(await isChosen(db, id))) await setOriginalDeleted(db, id, true);
}
