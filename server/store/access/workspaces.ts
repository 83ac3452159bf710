import type { Workspace } from '@inkwell/core/model';
import { asc, eq, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { members, workspaces } from '../schema/index.ts';

const isFirst = sql<boolean>`${workspaces.id} = (select id from workspaces order by created_at, id limit 1)`;

/** The workspace that everything belonged to before there were others. */
export async function firstWorkspace(db: Queryable): Promise<string> {
  const [row] = await db
    .select({ id: workspaces.id })
    .from(workspaces)
    .orderBy(asc(workspaces.createdAt), workspaces.id);
  if (!row) throw new Error('There is no workspace.');
  return row.id;
}

/** All workspaces, as whoever may do everything sees them; the first before all others. */
export const listWorkspaces = (db: Queryable): Promise<Workspace[]> =>
  db
    .select({ id: workspaces.id, name: workspaces.name, role: sql<'owner'>`'owner'`, isFirst })
    .from(workspaces)
    .orderBy(asc(workspaces.createdAt), workspaces.id);

/** The workspaces that somebody is in; the one that they came to first before all others. */
export const workspacesOf = (db: Queryable, personId: string): Promise<Workspace[]> =>
  db
    .select({ id: workspaces.id, name: workspaces.name, role: members.role, isFirst })
    .from(workspaces)
    .innerJoin(members, eq(members.workspaceId, workspaces.id))
    .where(eq(members.personId, personId))
    .orderBy(asc(members.since), workspaces.id);

export async function workspaceName(db: Queryable, id: string): Promise<string | null> {
  const [row] = await db.select({ name: workspaces.name }).from(workspaces).where(eq(workspaces.id, id));
  return row?.name ?? null;
}

/** @returns its id */
export async function addWorkspace(db: Queryable, name: string): Promise<string> {
  const [row] = await db.insert(workspaces).values({ name }).returning({ id: workspaces.id });
  if (!row) throw new Error('The workspace was not stored.');
  return row.id;
}

export async function nameWorkspace(db: Queryable, id: string, name: string): Promise<void> {
  await db.update(workspaces).set({ name }).where(eq(workspaces.id, id));
}
