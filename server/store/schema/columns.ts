import { bigint, customType, timestamp } from 'drizzle-orm/pg-core';

/** Bytes as they are. */
export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
/** A point in time. */
export const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
/** A count of bytes, which may be beyond 32 bits. */
export const bytes = (name: string) => bigint(name, { mode: 'number' });

/** A render plan in the database: another version of the program may have put it there. `readPlan` reads it. */
export type KeptPlan = unknown;
