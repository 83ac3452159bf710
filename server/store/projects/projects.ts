import { plainFinishId } from '@inkwell/core/finishing';
import {
  type OpenProject,
  type Original,
  type Pins,
  type Project,
  type ProjectSettings,
  ProjectSettingsSchema,
} from '@inkwell/core/model';
import { and, asc, desc, eq, inArray, isNull, type Placeholder, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { toOriginal } from '../library/originals.ts';
import { prepared } from '../prepared.ts';
import { columnsOf, frames, originals, projectOriginals, projects } from '../schema/index.ts';
import { setDeleted } from '../setDeleted.ts';
import { bareFrames, type FramedPicture, framedColumns, isChosen, toFramed } from './frames.ts';

const alive = (id: string | Placeholder) => and(eq(projects.id, id), isNull(projects.deletedAt));
const coverFrames = 4;

/** Every so many-th frame of each project, in its order, so that about four of them are spread over all. */
const framesInCovers = prepared((db) => {
  const numbered = db
    .select({
      id: frames.id,
      index:
        sql<number>`row_number() over (partition by ${frames.projectId} order by ${projectOriginals.position}, ${frames.placeId}) - 1`.as(
          'index',
        ),
      count: sql<number>`count(*) over (partition by ${frames.projectId})::int`.as('count'),
    })
    .from(frames)
    .innerJoin(projects, and(eq(projects.id, frames.projectId), isNull(projects.deletedAt)))
    .innerJoin(originals, and(eq(originals.id, frames.originalId), isNull(originals.deletedAt)))
    .leftJoin(projectOriginals, isChosen)
    .as('numbered');
  return db
    .select({ ...framedColumns, count: numbered.count })
    .from(numbered)
    .innerJoin(frames, eq(frames.id, numbered.id))
    .innerJoin(originals, eq(originals.id, frames.originalId))
    .innerJoin(projects, eq(projects.id, frames.projectId))
    .where(sql`${numbered.index} % greatest(1, ceil(${numbered.count} / ${coverFrames}::float8)::int) = 0`)
    .orderBy(asc(frames.projectId), asc(numbered.index))
    .prepare('covers');
});

const allProjects = prepared((db) =>
  db
    .select(columnsOf(projects))
    .from(projects)
    .where(isNull(projects.deletedAt))
    .orderBy(desc(projects.changedAt))
    .prepare('projects'),
);

const oneProject = prepared((db) =>
  db
    .select(columnsOf(projects))
    .from(projects)
    .where(alive(sql.placeholder('id')))
    .prepare('one_project'),
);

const originalsIn = prepared((db) =>
  db
    .select({ original: originals })
    .from(projectOriginals)
    .innerJoin(originals, and(eq(originals.id, projectOriginals.originalId), isNull(originals.deletedAt)))
    .where(eq(projectOriginals.projectId, sql.placeholder('id')))
    .orderBy(asc(projectOriginals.position))
    .prepare('originals_of_project'),
);

/** A project in a list, with up to four frames that show what it is about. */
export type ListedProject = Omit<Project, 'cover'> & { cover: FramedPicture[] };

/** Most recently changed first. A few queries, however many there are. */
export async function listProjects(db: Queryable): Promise<ListedProject[]> {
  const [rows, covers] = await Promise.all([allProjects(db).execute(), coversOf(db)]);
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
  const covers: Awaited<ReturnType<typeof coversOf>> = new Map();
  const rows = await framesInCovers(db).execute();
  for (const [at, picture] of (await toFramed(db, rows)).entries()) {
    const { projectId } = picture.frame;
    const known = covers.get(projectId) ?? { count: rows[at]?.count ?? 0, cover: [] };
    if (known.cover.length < coverFrames) known.cover.push(picture);
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

/** What some projects are called, by id. */
export async function projectNames(db: Queryable, ids: readonly string[]): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: projects.id, name: projects.name })
    .from(projects)
    .where(inArray(projects.id, [...ids]));
  return new Map(rows.map(({ id, name }) => [id, name]));
}

/** The versions of sheets that a project stays on; null where it is not there. */
export async function projectPins(db: Queryable, id: string): Promise<Pins | null> {
  const [row] = await db.select({ pins: projects.pins }).from(projects).where(alive(id));
  return row?.pins ?? null;
}

/** The originals of a project, in its order; null where there is no such project. */
export async function originalsOf(db: Queryable, id: string): Promise<Original[] | null> {
  if ((await projectName(db, id)) === null) return null;
  return (await originalsIn(db).execute({ id })).map((one) => toOriginal(one.original));
}

/** A project with its originals and frames; null where it is not there. @param frameIds only some frames */
export async function openProject(
  db: Queryable,
  id: string,
  frameIds: readonly string[] | null = null,
): Promise<OpenProject | null> {
  const [row] = await oneProject(db).execute({ id });
  if (!row) return null;
  const { deletedAt: _, ...project } = row;
  const chosen = await originalsIn(db).execute({ id });
  return {
    ...project,
    createdAt: project.createdAt.toISOString(),
    changedAt: project.changedAt.toISOString(),
    originals: chosen.map((one) => toOriginal(one.original)),
    frames: await bareFrames(db, id, frameIds),
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
  const copy = await addProject(db, `${project.name} copy`, ProjectSettingsSchema.parse(project));
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

/** Adds originals at the end and takes others out together with their frames. Run it in a transaction. */
export async function changeOriginals(
  db: Queryable,
  projectId: string,
  add: readonly string[],
  remove: readonly string[],
): Promise<void> {
  if (remove.length > 0) {
    const gone = [...remove];
    await db.delete(frames).where(and(eq(frames.projectId, projectId), inArray(frames.originalId, gone)));
    await db
      .delete(projectOriginals)
      .where(and(eq(projectOriginals.projectId, projectId), inArray(projectOriginals.originalId, gone)));
  }
  const [last] = await db
    .select({ position: sql<number>`coalesce(max(${projectOriginals.position}), -1)` })
    .from(projectOriginals)
    .where(eq(projectOriginals.projectId, projectId));
  const start = Number(last?.position ?? -1) + 1;
  if (add.length > 0) {
    const rows = add.map((originalId, index) => ({ projectId, originalId, position: start + index }));
    await db.insert(projectOriginals).values(rows).onConflictDoNothing();
  }
  await db.update(projects).set({ changedAt: new Date() }).where(eq(projects.id, projectId));
}
