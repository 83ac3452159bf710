import type { Analysis, Frame, FrameChange, Original, Project } from '@inkwell/core/model';
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { analysesOf } from '../library/analyses.ts';
import { toOriginal } from '../library/originals.ts';
import { prepared } from '../prepared.ts';
import { frames, originals, projectOriginals, projects } from '../schema/index.ts';

export type NewFrame = Omit<Frame, 'id' | 'version'>;

/** A frame with what stands above it. */
export interface FramedPicture {
  frame: Frame;
  original: Original;
  project: Pick<Project, 'finishId' | 'keeping' | 'composing' | 'lettering' | 'posting' | 'pins' | 'version'>;
  /** What was seen in the original; null where it has not been looked at. */
  seen: Analysis | null;
}

export const framedColumns = {
  frame: frames,
  original: originals,
  project: {
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

const inProject = prepared((db) =>
  framed(db)
    .leftJoin(projectOriginals, isChosen)
    .where(eq(frames.projectId, sql.placeholder('projectId')))
    .orderBy(asc(projectOriginals.position), asc(frames.placeId))
    .prepare('frames_of_project'),
);

/** A frame together with its original, unless either the original or the project was deleted. */
export async function findFrame(db: Queryable, id: string): Promise<FramedPicture | null> {
  const [found = null] = await toFramed(db, await oneFrame(db).execute({ id }));
  return found;
}

/** All frames of a project in the order of its originals. */
export async function framesOfProject(db: Queryable, projectId: string): Promise<FramedPicture[]> {
  return toFramed(db, await inProject(db).execute({ projectId }));
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

/** Saves a change made on top of `version`. Null where somebody else saved meanwhile, or the frame is gone. */
export async function saveFrame(
  db: Queryable,
  id: string,
  version: number,
  change: FrameChange,
): Promise<Frame | null> {
  const [row] = await db
    .update(frames)
    .set({ ...change, version: sql`${frames.version} + 1` })
    .where(and(eq(frames.id, id), eq(frames.version, version)))
    .returning();
  if (row) await db.update(projects).set({ changedAt: new Date() }).where(eq(projects.id, row.projectId));
  return row ?? null;
}
