import type pg from 'pg';
import { UnfitDatabase } from '../database/migrating.ts';

/** Who works inside the fence: it may do nothing that goes beyond rows, and sees those of one workspace. */
export const fencedRole = 'inkwell_fenced';

/**
 * Tables that all workspaces share. What they hold is found by what it follows from alone, such as the SHA-256 of a file: whoever finds it
 * has that already.
 */
export const sharedTables = [
  'blobs',
  'blob_chunks',
  'unneeded_objects',
  'analyses',
  'figures',
  'weights',
  'details',
  'legibilities',
  'survivals',
  'encodings',
  'milestones',
] as const;

/** Tables with the column of a workspace that say who may come in. Nothing inside the fence reaches them. */
const outside = ['members', 'invitations', 'tokens', 'door_events'];

const isRefused = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && (error.code === '42501' || error.code === '0LP01');

/**
 * Makes sure that there is the role that works inside the fence, and that this user may take it. A role belongs to all databases of a
 * server: another program that starts may be making it just now.
 *
 * @throws UnfitDatabase where this user may not
 */
export async function ensureFencedRole(connection: pg.ClientBase): Promise<void> {
  const { rows } = await connection.query<{ user: string; may: boolean }>(
    `select current_user as user,
      exists (select from pg_roles where rolname = $1 and pg_has_role(oid, 'member')) as may`,
    [fencedRole],
  );
  const [row] = rows;
  if (!row || row.may) return;
  try {
    await connection.query(`do $$ begin
      create role ${fencedRole} nologin;
    exception when duplicate_object or unique_violation then null; end $$`);
    await connection.query(`grant ${fencedRole} to current_user`);
  } catch (error) {
    if (!isRefused(error)) throw error;
    throw new UnfitDatabase(
      `The user ${row.user} of the database may not make the role ${fencedRole}, by which workspaces are kept apart. Let an administrator of the database run: create role ${fencedRole} nologin; grant ${fencedRole} to "${row.user}";`,
    );
  }
}

/**
 * Puts up the fence. Whatever has the column of a workspace is fenced by it, and whatever has not is out of reach from inside, but for what all
 * share: so a table that is added cannot be forgotten. What stands already is left alone.
 */
export async function raiseFence(connection: pg.ClientBase): Promise<void> {
  const { rows } = await connection.query<{ name: string; is_fenced: boolean; is_open: boolean }>(
    `select relname as name, relrowsecurity and exists (select from pg_policy where polrelid = pg_class.oid) as is_fenced,
      has_table_privilege($1, pg_class.oid, 'insert') as is_open
    from pg_class
    where relnamespace = 'public'::regnamespace and relkind = 'r' and relname <> all ($2) and (
      relname = any ($3) or exists (
        select from pg_attribute where attrelid = pg_class.oid and attname = 'workspace_id' and not attisdropped))`,
    [fencedRole, outside, sharedTables],
  );
  // Of a database that was restored, or that somebody has closed to others, not even the names are open.
  await connection.query(`grant usage on schema public to ${fencedRole}`);
  const shared: readonly string[] = sharedTables;
  for (const { name, is_fenced: isFenced, is_open: isOpen } of rows) {
    if (!isFenced && !shared.includes(name)) {
      await connection.query(`alter table "${name}" enable row level security`);
      await connection.query(
        `create policy "workspace" on "${name}" using ("workspace_id" = (select inkwell_workspace()))`,
      );
    }
    if (!isOpen) await connection.query(`grant select, insert, update, delete on "${name}" to ${fencedRole}`);
  }
}
