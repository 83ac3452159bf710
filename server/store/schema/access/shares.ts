import { bigint, pgTable, unique, uuid } from 'drizzle-orm/pg-core';
import { people, workspaces } from './people.ts';

const most = (name: string) => bigint(name, { mode: 'number' });

/** How much of the machine a workspace may use, or somebody in it. Null is as much as there is. */
export const shares = pgTable(
  'shares',
  {
    workspaceId: uuid('workspace_id')
      .notNull()
      .references(() => workspaces.id, { onDelete: 'cascade' }),
    /** Null for the whole workspace. */
    personId: uuid('person_id').references(() => people.id, { onDelete: 'cascade' }),
    bytes: most('bytes'),
    pixels: most('pixels'),
    jobs: most('jobs'),
    uploads: most('uploads'),
    requests: most('requests'),
  },
  (table) => [unique('shares_one').on(table.workspaceId, table.personId).nullsNotDistinct()],
);
