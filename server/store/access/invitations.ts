import type { Invitation, Role } from '@inkwell/core/model';
import { and, asc, eq, gt, isNotNull, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { invitations, passwordResets, people } from '../schema/index.ts';

const inHours = (hours: number) => sql`now() + make_interval(hours => ${hours})`;
const holds = gt(invitations.endsAt, sql`now()`);

const selected = {
  id: invitations.id,
  email: invitations.email,
  role: invitations.role,
  invitedBy: people.name,
  createdAt: invitations.createdAt,
  endsAt: invitations.endsAt,
};

/** All invitations to a workspace that nobody has taken and that hold, the oldest first; not those for a first account. */
export async function listInvitations(db: Queryable, workspaceId: string): Promise<Invitation[]> {
  const rows = await db
    .select(selected)
    .from(invitations)
    .leftJoin(people, eq(people.id, invitations.invitedBy))
    .where(and(eq(invitations.workspaceId, workspaceId), holds, isNotNull(invitations.email)))
    .orderBy(asc(invitations.createdAt));
  return rows.map((row) => ({
    ...row,
    email: row.email ?? '',
    createdAt: row.createdAt.toISOString(),
    endsAt: row.endsAt.toISOString(),
  }));
}

interface NewRow {
  workspaceId: string;
  email: string | null;
  role: Role;
  hash: string;
  invitedBy: string | null;
  hours: number;
}

/** Keeps an invitation; an earlier one to the same workspace for the same address is gone. @returns its id */
export async function addInvitation(db: Queryable, { hours, ...values }: NewRow): Promise<string> {
  const { workspaceId, email } = values;
  if (email !== null) {
    await db.delete(invitations).where(and(eq(invitations.workspaceId, workspaceId), eq(invitations.email, email)));
  }
  const [row] = await db
    .insert(invitations)
    .values({ ...values, endsAt: inHours(hours) })
    .returning({ id: invitations.id });
  if (!row) throw new Error('The invitation was not stored.');
  return row.id;
}

/** @returns for whom it was; null where it is not there, or is for a first account */
export async function withdrawInvitation(db: Queryable, workspaceId: string, id: string): Promise<string | null> {
  const rows = await db
    .delete(invitations)
    .where(and(eq(invitations.id, id), eq(invitations.workspaceId, workspaceId), isNotNull(invitations.email)))
    .returning({ email: invitations.email });
  return rows[0]?.email ?? null;
}

export interface HeldInvitation {
  workspaceId: string;
  email: string | null;
  role: Role;
}

/** The invitation with this hash, as long as it holds. */
export async function holdingInvitation(db: Queryable, hash: string): Promise<HeldInvitation | null> {
  const [row] = await db
    .select()
    .from(invitations)
    .where(and(eq(invitations.hash, hash), holds));
  return row ?? null;
}

/** Takes the invitation with this hash, so that nobody else does; null where it does not hold. */
export async function takeInvitation(db: Queryable, hash: string): Promise<HeldInvitation | null> {
  const [row] = await db
    .delete(invitations)
    .where(and(eq(invitations.hash, hash), holds))
    .returning();
  return row ?? null;
}

/** No first account is made any more. */
export async function withdrawFirst(db: Queryable): Promise<void> {
  await db.delete(invitations).where(isNull(invitations.email));
}

export async function addReset(db: Queryable, personId: string, hash: string, hours: number): Promise<void> {
  await db.delete(passwordResets).where(eq(passwordResets.personId, personId));
  await db.insert(passwordResets).values({ personId, hash, endsAt: inHours(hours) });
}

/** Uses up the link for a new password. @returns whose it is; null where it does not hold */
export async function takeReset(db: Queryable, hash: string): Promise<string | null> {
  const [row] = await db
    .delete(passwordResets)
    .where(and(eq(passwordResets.hash, hash), gt(passwordResets.endsAt, sql`now()`)))
    .returning({ personId: passwordResets.personId });
  return row?.personId ?? null;
}
