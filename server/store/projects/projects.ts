import { plainFinishId } from '@inkwell/core/finishing';
import type { OpenProject, Project, ProjectSettings } from '@inkwell/core/model';
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Database, Queryable } from '../database.ts';
import { toOriginal } from '../library/originals.ts';
import { frames, originals, projectOriginals, projects } from '../schema.ts';
import { setDeleted } from '../setDeleted.ts';
import { type FramedPicture, framesById, framesOfProject } from './frames.ts';

const alive = (id: string) => and(eq(projects.id, id), isNull(projects.deletedAt));
const coverFrames = 4;

/** A project in a list, with up to four frames that show what it is about. */
export type ListedProject = Omit<Project, 'cover'> & { cover: FramedPicture[] };

/** Most recently changed first. A few queries, however many there are. */
export async function listProjects(db: Queryable): Promise<ListedProject[]> {
  const [rows, covers] = await Promise.all([
    db.select().from(projects).where(isNull(projects.deletedAt)).orderBy(desc(projects.changedAt)),
    coversOf(db),
  ]);
  return rows.map(({ deletedAt: _, ...row }) => {
    const { count = 0, cover = [] } = covers.get(row.id) ?? {};
    return {
      ...row,
      createdAt: row.createdAt.toISOString(),
      changedAt: row.changedAt.toISOString(),
      frameCount: count,
      cover,
    };
  });
}

/** How many frames every project has, and up to four of them, spread over all. */
async function coversOf(db: Queryable): Promise<Map<string, Pick<ListedProject, 'cover'> & { count: number }>> {
  const chosen = await db.execute<{ id: string; project_id: string; count: number }>(sql`
    select id, project_id, count from (
      select frames.id, frames.project_id,
        row_number() over one - 1 as index,
        count(*) over (partition by frames.project_id)::int as count
      from frames
      join projects on projects.id = frames.project_id and projects.deleted_at is null
      join originals on originals.id = frames.original_id and originals.deleted_at is null
      left join project_originals as chosen
        on chosen.project_id = frames.project_id and chosen.original_id = frames.original_id
      window one as (partition by frames.project_id order by chosen.position, frames.place_id)) as numbered
    where index % greatest(1, ceil(count / ${coverFrames}::float8)::int) = 0
    order by project_id, index`);
  const ids = chosen.rows.map(({ id }) => id);
  const pictures = new Map((await framesById(db, ids)).map((framed) => [framed.frame.id, framed]));
  const covers: Awaited<ReturnType<typeof coversOf>> = new Map();
  for (const { id, project_id: projectId, count } of chosen.rows) {
    const known = covers.get(projectId) ?? { count, cover: [] };
    const picture = pictures.get(id);
    if (picture && known.cover.length < coverFrames) known.cover.push(picture);
    covers.set(projectId, known);
  }
  return covers;
}

/** All that are not deleted. */
export async function projectIds(db: Queryable): Promise<string[]> {
  const rows = await db.select({ id: projects.id }).from(projects).where(isNull(projects.deletedAt));
  return rows.map(({ id }) => id);
}

/** What a project is called; null where it is not there. */
export async function projectName(db: Queryable, id: string): Promise<string | null> {
  const [row] = await db.select({ name: projects.name }).from(projects).where(alive(id));
  return row?.name ?? null;
}

export async function openProject(db: Queryable, id: string): Promise<OpenProject | null> {
  const [row] = await db.select().from(projects).where(alive(id));
  if (!row) return null;
  const { deletedAt: _, ...project } = row;
  const chosen = await db
    .select({ original: originals })
    .from(projectOriginals)
    .innerJoin(originals, and(eq(originals.id, projectOriginals.originalId), isNull(originals.deletedAt)))
    .where(eq(projectOriginals.projectId, id))
    .orderBy(asc(projectOriginals.position));
  return {
    ...project,
    createdAt: project.createdAt.toISOString(),
    changedAt: project.changedAt.toISOString(),
    originals: chosen.map((one) => toOriginal(one.original)),
    frames: (await framesOfProject(db, id)).map((one) => one.frame),
  };
}

export async function addProject(
  db: Queryable,
  name: string,
  settings: Partial<ProjectSettings> = {},
): Promise<string> {
  const [row] = await db
    .insert(projects)
    .values({ name, finishId: plainFinishId, ...settings })
    .returning({ id: projects.id });
  if (!row) throw new Error('The project was not stored.');
  return row.id;
}

export async function renameProject(db: Queryable, id: string, name: string): Promise<boolean> {
  const rows = await db
    .update(projects)
    .set({ name, changedAt: new Date() })
    .where(alive(id))
    .returning({ id: projects.id });
  return rows.length > 0;
}

/** Saves settings changed on top of `version`. False where somebody else saved meanwhile, or the project is gone. */
export async function saveProjectSettings(
  db: Queryable,
  id: string,
  version: number,
  change: Partial<ProjectSettings>,
): Promise<boolean> {
  const rows = await db
    .update(projects)
    .set({ ...change, version: sql`${projects.version} + 1`, changedAt: new Date() })
    .where(and(alive(id), eq(projects.version, version)))
    .returning({ id: projects.id });
  return rows.length > 0;
}

/** A copy with the same originals and frames. Returns the new id, or null where there is no such project. */
export async function duplicateProject(db: Queryable, id: string): Promise<string | null> {
  const project = await openProject(db, id);
  if (!project) return null;
  const { name, finishId, keeping } = project;
  const copy = await addProject(db, `${name} copy`, { finishId, keeping });
  if (project.originals.length > 0) {
    const chosen = project.originals.map((one, position) => ({ projectId: copy, originalId: one.id, position }));
    await db.insert(projectOriginals).values(chosen);
  }
  if (project.frames.length > 0) {
    const copies = project.frames.map(({ id: _, version: __, ...frame }) => ({ ...frame, projectId: copy }));
    await db.insert(frames).values(copies);
  }
  return copy;
}

/** Puts a project aside (`deleted` true) or takes it back. */
export const setProjectDeleted = (db: Queryable, id: string, deleted: boolean): Promise<boolean> =>
  setDeleted(db, projects, id, deleted);

/** Adds originals at the end and takes others out together with their frames. */
export async function changeOriginals(
  db: Database,
  projectId: string,
  add: readonly string[],
  remove: readonly string[],
): Promise<void> {
  await db.transaction(async (tx) => {
    if (remove.length > 0) {
      const gone = [...remove];
      await tx.delete(frames).where(and(eq(frames.projectId, projectId), inArray(frames.originalId, gone)));
      await tx
        .delete(projectOriginals)
        .where(and(eq(projectOriginals.projectId, projectId), inArray(projectOriginals.originalId, gone)));
    }
    const [last] = await tx
      .select({ position: sql<number>`coalesce(max(${projectOriginals.position}), -1)` })
      .from(projectOriginals)
      .where(eq(projectOriginals.projectId, projectId));
    const start = Number(last?.position ?? -1) + 1;
    if (add.length > 0) {
      const rows = add.map((originalId, index) => ({ projectId, originalId, position: start + index }));
      await tx.insert(projectOriginals).values(rows).onConflictDoNothing();
    }
    await tx.update(projects).set({ changedAt: new Date() }).where(eq(projects.id, projectId));
  });
}
