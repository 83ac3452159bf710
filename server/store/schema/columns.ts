import { getTableColumns, sql } from 'drizzle-orm';
import { bigint, customType, type PgTable, timestamp, uuid } from 'drizzle-orm/pg-core';

/** Bytes as they are. */
export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
/** A point in time. */
export const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
/** A count of bytes, which may be beyond 32 bits. */
export const bytes = (name: string) => bigint(name, { mode: 'number' });

/**
 * The workspace that a row belongs to: that of the connection which makes it. Rows of another one are out of sight, for whatever is asked over
 * such a connection. See fence.ts.
 */
export const workspaceColumn = () => uuid('workspace_id').notNull().default(sql`inkwell_workspace()`);

/** Who made a row: whoever the connection works for; null where nobody is known to ask. No foreign key: it outlives an account. */
export const personColumn = (name: string) => uuid(name).default(sql`inkwell_person()`);

/** All columns of a table but that of its workspace: what is read over a connection is of that one anyway. */
export function columnsOf<Table extends PgTable>(table: Table): Omit<Table['_']['columns'], 'workspaceId'> {
  const { workspaceId: _, ...columns } = getTableColumns(table);
  return columns as Omit<Table['_']['columns'], 'workspaceId'>;
}

/** A render plan in the database: another version of the program may have put it there. `readPlan` reads it. */
export type KeptPlan = unknown;
