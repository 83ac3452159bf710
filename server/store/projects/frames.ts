import type { Frame, FrameChange, Original, Project } from '@inkwell/core/model';
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { toOriginal } from '../library/originals.ts';
import { frames, originals, projectOriginals, projects } from '../schema.ts';

export type NewFrame = Omit<Frame, 'id' | 'version'>;

/** A frame with what stands above it. */
export interface FramedPicture {
  frame: Frame;
  original: Original;
  project: Pick<Project, 'finishId' | 'keeping' | 'version'>;
}

const framedColumns = {
  frame: frames,
  original: originals,
  project: { finishId: projects.finishId, keeping: projects.keeping, version: projects.version },
};

/** A frame together with its original, unless either the original or the project was deleted. */
export async function findFrame(db: Queryable, id: string): Promise<FramedPicture | null> {
  const [row] = await db
    .select(framedColumns)
    .from(frames)
    .innerJoin(originals, and(eq(originals.id, frames.originalId), isNull(originals.deletedAt)))
    .innerJoin(projects, and(eq(projects.id, frames.projectId), isNull(projects.deletedAt)))
    .where(eq(frames.id, id));
  return row ? { ...row, original: toOriginal(row.original) } : null;
}

/** All frames of a project in the order of its originals. */
export async function framesOfProject(db: Queryable, projectId: string): Promise<FramedPicture[]> {
  const rows = await db
    .select(framedColumns)
    .from(frames)
    .innerJoin(originals, and(eq(originals.id, frames.originalId), isNull(originals.deletedAt)))
    .innerJoin(projects, eq(projects.id, frames.projectId))
    .leftJoin(
      projectOriginals,
      and(eq(projectOriginals.projectId, frames.projectId), eq(projectOriginals.originalId, frames.originalId)),
    )
    .where(eq(frames.projectId, projectId))
    .orderBy(asc(projectOriginals.position), asc(frames.placeId));
  return rows.map((row) => ({ ...row, original: toOriginal(row.original) }));
}

/** Frames with their originals, in no order. */
export async function framesById(db: Queryable, ids: readonly string[]): Promise<FramedPicture[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select(framedColumns)
    .from(frames)
    .innerJoin(originals, eq(originals.id, frames.originalId))
    .innerJoin(projects, eq(projects.id, frames.projectId))
    .where(inArray(frames.id, [...ids]));
  return rows.map((row) => ({ ...row, original: toOriginal(row.original) }));
}

/** Frames of all projects that are there: of an original, for a place, or finished by a finish wherever that is said. */
export async function framesAffected(
  db: Queryable,
  by: { originalId: string } | { placeId: string } | { finishId: string },
): Promise<FramedPicture[]> {
  const finishId = sql`coalesce(${frames.finishId}, ${originals.finishId}, ${projects.finishId})`;
  const isAffected =
    'originalId' in by
      ? eq(frames.originalId, by.originalId)
      : 'placeId' in by
        ? eq(frames.placeId, by.placeId)
        : sql`${finishId} = ${by.finishId}`;
  const rows = await db
    .select(framedColumns)
    .from(frames)
    .innerJoin(originals, and(eq(originals.id, frames.originalId), isNull(originals.deletedAt)))
    .innerJoin(projects, and(eq(projects.id, frames.projectId), isNull(projects.deletedAt)))
    .where(isAffected);
  return rows.map((row) => ({ ...row, original: toOriginal(row.original) }));
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
