import {
  FrameSchema,
  NameSchema,
  type OpenProject,
  type Original,
  OriginalSettingsSchema,
  ProjectSettingsSchema,
} from '@inkwell/core/model';
import { type Rows, rowsBefore } from '@inkwell/core/recalling';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Queryable } from '../../store/database.ts';
import { findOriginals } from '../../store/library/originals.ts';
import { changesOfOriginals, changesOfProject, type StoredChange } from '../../store/projects/history.ts';
import { openProject } from '../../store/projects/projects.ts';
import { frames, originals, projectOriginals, projects } from '../../store/schema/index.ts';
import { namedRow } from '../../store/schema/namedRow.ts';
import { orNotFound, UserError } from '../../userError.ts';

/** A moment of a project: after a step of its history, or before it. */
export interface Moment {
  step: number;
  is: 'after' | 'before';
}

const tables = { projects, frames, project_originals: projectOriginals, originals } satisfies Record<string, PgTable>;

/**
 * A project as it was. Pictures that were deleted since are not in it, nor are their frames.
 *
 * @param frameId only this frame and its picture
 * @throws UserError where that cannot be told
 */
export async function projectThen(
  db: Queryable,
  projectId: string,
  { step, is }: Moment,
  frameId: string | null = null,
): Promise<OpenProject> {
  const now = orNotFound(await openProject(db, projectId, frameId === null ? null : [frameId]), 'This project');
  // Read after the rows: to undo what is not in them yet changes nothing.
  const since = await changesOfProject(db, projectId, { step, isIncluded: is === 'before', frameId });
  const { id, version, createdAt, changedAt } = now;

  const [own] = undone(
    'projects',
    since,
    byId([now], ({ originals: _, frames: __, ...row }) => row),
  ).values();
  const name = NameSchema.safeParse(own?.name).data ?? now.name;
  const project = ProjectSettingsSchema.safeParse(own);
  if (!project.success) {
    throw new UserError('Another version of the program made this step, and its settings are not known any more.', 409);
  }
  const framesThen = [
    ...undone(
      'frames',
      since,
      byId(now.frames, (one) => ({ ...one })),
    ),
  ].flatMap(
    ([rowId, row]) => FrameSchema.safeParse({ version: 1, ...row, carriedFrom: null, id: rowId, projectId }).data ?? [],
  );
  const inOrder = undone(
    'project_originals',
    since,
    byId(now.originals, (_, position) => ({ position })),
  );
  const chosen = [...inOrder]
    .toSorted(([, a], [, b]) => Number(a.position) - Number(b.position))
    .map(([originalId]) => originalId)
    .filter((originalId) => frameId === null || framesThen.some((frame) => frame.originalId === originalId));
  const originalOf = await originalsThen(db, chosen, { step, is });
  const positions = new Map(chosen.map((originalId, position) => [originalId, position]));
  return {
    ...project.data,
    id,
    name,
    version,
    createdAt,
    changedAt,
    originals: chosen.flatMap((originalId) => originalOf.get(originalId) ?? []),
    frames: framesThen
      .filter(({ originalId }) => originalOf.has(originalId))
      .toSorted(
        (a, b) =>
          (positions.get(a.originalId) ?? 0) - (positions.get(b.originalId) ?? 0) || (a.placeId < b.placeId ? -1 : 1),
      ),
  };
}

/** Originals as they were set, by id. */
async function originalsThen(
  db: Queryable,
  ids: readonly string[],
  { step, is }: Moment,
): Promise<Map<string, Original>> {
  const known = await findOriginals(db, ids);
  const since = await changesOfOriginals(db, ids, { step, isIncluded: is === 'before' });
  const rows = undone(
    'originals',
    since,
    byId(known, (one) => ({ ...one })),
  );
  return new Map(known.map((one) => [one.id, originalThen(one, rows.get(one.id))]));
}

/** An original as it was set; its file has never changed. */
function originalThen(now: Original, row: Readonly<Record<string, unknown>> | undefined): Original {
  return { ...now, ...OriginalSettingsSchema.partial().safeParse(row).data };
}

const byId = <Row extends { id: string }>(
  rows: readonly Row[],
  settings: (row: Row, index: number) => Record<string, unknown>,
): Rows => new Map(rows.map((row, index) => [row.id, settings(row, index)]));

/** Rows of a table before changes of them. */
function undone(table: keyof typeof tables, since: readonly StoredChange[], now: Rows) {
  const ofTable = since
    .filter((one) => one.table === table)
    .map((one) => ({ ...one, before: one.before && namedRow(tables[table], one.before) }));
  return rowsBefore(now, ofTable);
}
