import type { Member, Role } from '@inkwell/core/model';
import { and, asc, count, eq } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { members, people, tokens } from '../schema/index.ts';
import { toPerson } from './people.ts';

const isIn = (workspaceId: string, personId: string) =>
  and(eq(members.workspaceId, workspaceId), eq(members.personId, personId));

const found = (db: Queryable) =>
  db.select({ row: people, role: members.role }).from(people).innerJoin(members, eq(members.personId, people.id));

/** Everybody in a workspace, in the order in which they came. */
export async function listMembers(db: Queryable, workspaceId: string): Promise<Member[]> {
  const rows = await found(db).where(eq(members.workspaceId, workspaceId)).orderBy(asc(members.since), people.id);
  return rows.map(({ row, role }) => ({ ...toPerson(row), role }));
}

/** Somebody in a workspace; null where they are not in it. */
export async function memberOf(db: Queryable, workspaceId: string, personId: string): Promise<Member | null> {
  const [one] = await found(db).where(isIn(workspaceId, personId));
  return one ? { ...toPerson(one.row), role: one.role } : null;
}

/** False where somebody is in the workspace already: then they stay what they are in it. */
export async function addMember(db: Queryable, workspaceId: string, personId: string, role: Role): Promise<boolean> {
  const rows = await db
    .insert(members)
    .values({ workspaceId, personId, role })
    .onConflictDoNothing()
    .returning({ role: members.role });
  return rows.length > 0;
}

export async function setRole(db: Queryable, workspaceId: string, personId: string, role: Role): Promise<void> {
  await db.update(members).set({ role }).where(isIn(workspaceId, personId));
}

/** Takes somebody out of a workspace, with the tokens that hold there. */
export async function removeMember(db: Queryable, workspaceId: string, personId: string): Promise<void> {
  await db.delete(members).where(isIn(workspaceId, personId));
  await db.delete(tokens).where(and(eq(tokens.workspaceId, workspaceId), eq(tokens.personId, personId)));
}

export async function countOwners(db: Queryable, workspaceId: string): Promise<number> {
  const isOwner = and(eq(members.workspaceId, workspaceId), eq(members.role, 'owner'));
  const [row] = await db.select({ owners: count() }).from(members).where(isOwner);
  return row?.owners ?? 0;
}

/** How many workspaces somebody is in. */
export async function countWorkspaces(db: Queryable, personId: string): Promise<number> {
  const [row] = await db.select({ all: count() }).from(members).where(eq(members.personId, personId));
  return row?.all ?? 0;
}
