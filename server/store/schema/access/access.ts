import type { TokenScope } from '@inkwell/core/model';
import { pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { moment } from '../columns.ts';
import { people, workspaces } from './people.ts';

/** What programs ask the API with. Only a hash of each is kept: nobody can read one off the database. */
export const tokens = pgTable('tokens', {
  id: uuid('id').primaryKey().defaultRandom(),
  /** Whose it is; null where it was made without accounts. */
  personId: uuid('person_id').references(() => people.id, { onDelete: 'cascade' }),
  /** Where it holds. */
  workspaceId: uuid('workspace_id')
    .notNull()
    .references(() => workspaces.id, { onDelete: 'cascade' }),
  name: text('name').notNull(),
  may: text('may').$type<TokenScope>().notNull(),
  /** SHA-256 of the whole token: it has 256 bits of chance, so nothing slower is needed. */
  hash: text('hash').notNull().unique(),
  /** Its first characters, by which a person knows it again. */
  beginning: text('beginning').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  endsAt: moment('ends_at'),
  lastUsedAt: moment('last_used_at'),
  withdrawnAt: moment('withdrawn_at'),
});
