import type { Analysis, Frame, FrameChange, Original, Project } from '@inkwell/core/model';
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { analysesOf } from '../library/analyses.ts';
import { toOriginal } from '../library/originals.ts';
import { prepared } from '../prepared.ts';
import { columnsOf, frames, originals, projectOriginals, projects } from '../schema/index.ts';

export type NewFrame = Omit<Frame, 'id' | 'version'>;

/** A frame with what stands above it. */
export interface FramedPicture {
  frame: Frame;
  original: Original;
  project: Pick<Project, 'id' | 'finishId' | 'keeping' | 'composing' | 'lettering' | 'posting' | 'pins' | 'version'>;
  /** What was seen in the original; null where it has not been looked at. */
  seen: Analysis | null;
}

export const framedColumns = {
  frame: columnsOf(frames),
  original: originals,
  project: {
    id: projects.id,
    finishId: projects.finishId,
    keeping: projects.keeping,
    composing: projects.composing,
    lettering: projects.lettering,
    posting: projects.posting,
    pins: projects.pins,
    version: projects.version,
  },
};

/** Whether a row says where the original of a frame stands in its project. */
export const isChosen = and(
  eq(projectOriginals.projectId, frames.projectId),
  eq(projectOriginals.originalId, frames.originalId),
);

/** Frames of originals and projects that are there. */
const framed = (db: Queryable) =>
  db
    .select(framedColumns)
    .from(frames)
    .innerJoin(originals, and(eq(originals.id, frames.originalId), isNull(originals.deletedAt)))
    .innerJoin(projects, and(eq(projects.id, frames.projectId), isNull(projects.deletedAt)));

/** Rows with what was seen in their originals. */
export async function toFramed(
  db: Queryable,
  rows: readonly Awaited<ReturnType<typeof framed>>[number][],
): Promise<FramedPicture[]> {
  const analysisOf = await analysesOf(
    db,
    rows.map(({ original }) => original),
  );
  return rows.map(({ frame, original, project }) => ({
    frame,
    original: toOriginal(original),
    project,
    seen: analysisOf(original),
  }));
}

const oneFrame = prepared((db) =>
  framed(db)
    .where(eq(frames.id, sql.placeholder('id')))
    .prepare('one_frame'),
);

const inProject = prepared((db) => {
  const wanted = sql.placeholder('frameIds');
  return db
    .select({ frame: columnsOf(frames) })
    .from(frames)
    .innerJoin(originals, and(eq(originals.id, frames.originalId), isNull(originals.deletedAt)))
    .leftJoin(projectOriginals, isChosen)
    .where(
      and(
        eq(frames.projectId, sql.placeholder('projectId')),
        sql`(${wanted}::uuid[] is null or ${frames.id} = any(${wanted}::uuid[]))`,
      ),
    )
    .orderBy(asc(projectOriginals.position), asc(frames.placeId))
    .prepare('frames_of_project');
});

const aboveFrames = prepared((db) =>
  db
    .select(framedColumns.project)
    .from(projects)
    .where(and(eq(projects.id, sql.placeholder('projectId')), isNull(projects.deletedAt)))
    .prepare('above_frames'),
);

/** A frame together with its original, unless either the original or the project was deleted. */
export async function findFrame(db: Queryable, id: string): Promise<FramedPicture | null> {
  const [found = null] = await toFramed(db, await oneFrame(db).execute({ id }));
  return found;
}

/** The frames of a project alone, in the order of its originals. @param frameIds some of them */
export async function bareFrames(
  db: Queryable,
  projectId: string,
  frameIds: readonly string[] | null = null,
): Promise<Frame[]> {
  const rows = await inProject(db).execute({ projectId, frameIds });
  return rows.map(({ frame }) => frame);
}

/** The same with what stands above them. An original with ten frames is read once. */
export async function framesOfProject(
  db: Queryable,
  projectId: string,
  frameIds: readonly string[] | null = null,
): Promise<FramedPicture[]> {
  const [project] = await aboveFrames(db).execute({ projectId });
  const found = project ? await bareFrames(db, projectId, frameIds) : [];
  if (!project || found.length === 0) return [];
  const ids = [...new Set(found.map(({ originalId }) => originalId))];
  const rows = await db
    .select()
    .from(originals)
    .where(and(inArray(originals.id, ids), isNull(originals.deletedAt)));
  const originalOf = new Map(rows.map((row) => [row.id, toOriginal(row)]));
  const analysisOf = await analysesOf(db, rows);
  return found.flatMap((frame) => {
    const original = originalOf.get(frame.originalId);
    return original ? [{ frame, original, project, seen: analysisOf(original) }] : [];
  });
}

/** Frames of all projects that are there: of an original, of a page of a file, for places, or finished by a finish wherever that is said. */
export async function framesAffected(
  db: Queryable,
  by:
    | { originalId: string }
    | { picture: { sha256: string; page: number } }
    | { placeIds: readonly string[] }
    | { finishId: string },
): Promise<FramedPicture[]> {
  const finishId = sql`coalesce(${frames.finishId}, ${originals.finishId}, ${projects.finishId})`;
  const isAffected =
    'originalId' in by
      ? eq(frames.originalId, by.originalId)
      : 'picture' in by
        ? and(eq(originals.sha256, by.picture.sha256), eq(originals.page, by.picture.page))
        : 'placeIds' in by
          ? inArray(frames.placeId, [...by.placeIds])
          : sql`${finishId} = ${by.finishId}`;
  return toFramed(
    db,
    await framed(db).where(isAffected).orderBy(asc(frames.projectId), asc(originals.createdAt), asc(frames.placeId)),
  );
}

/** Rows that are sent in one statement. */
const together = 500;

/** Adds frames and takes others out. Frames that exist already are left as they are. Run it in a transaction. */
export async function changeFrames(
  db: Queryable,
  projectId: string,
  add: readonly NewFrame[],
  removeIds: readonly string[],
): Promise<void> {
  if (removeIds.length > 0) {
    await db.delete(frames).where(and(eq(frames.projectId, projectId), inArray(frames.id, [...removeIds])));
  }
  for (let from = 0; from < add.length; from += together) {
    await db
      .insert(frames)
      .values(add.slice(from, from + together))
      .onConflictDoNothing();
  }
  await db.update(projects).set({ changedAt: new Date() }).where(eq(projects.id, projectId));
}

/**
 * Saves the same change of some frames. Whoever calls it has looked at their versions in a transaction that holds the lock of saves.
 *
 * @returns the frames as they are then
 */
export async function saveFrames(db: Queryable, ids: readonly string[], change: FrameChange): Promise<Frame[]> {
  const rows = await db
    .update(frames)
    .set({ ...change, version: sql`${frames.version} + 1` })
    .where(inArray(frames.id, [...ids]))
    .returning(columnsOf(frames));
  const projectIds = [...new Set(rows.map(({ projectId }) => projectId))];
  await db.update(projects).set({ changedAt: new Date() }).where(inArray(projects.id, projectIds));
  return rows;
}
