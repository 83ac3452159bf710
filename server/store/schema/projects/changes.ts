import type { RowChange } from '@inkwell/core/model';
import { sql } from 'drizzle-orm';
import { bigint, index, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { moment, personColumn, workspaceColumn } from '../columns.ts';

/**
 * The history of projects: one row for each row that a transaction has changed, written by triggers. What is in one transaction is one
 * step. Of a change only what differs is kept. See migration 0043.
 */
export const changes = pgTable(
  'changes',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    workspaceId: workspaceColumn(),
    /** The number of the transaction, which is unique with its moment: a database that was restored counts anew. */
    step: bigint('step', { mode: 'number' }).notNull(),
    at: moment('at').notNull().default(sql`now()`),
    personId: personColumn('person_id'),
    /** Null for an original, which may be in several projects. */
    projectId: uuid('project_id'),
    table: text('table').$type<RowChange['table']>().notNull(),
    /** Of the frame, the project or the original. */
    rowId: uuid('row_id').notNull(),
    kind: text('kind').$type<RowChange['kind']>().notNull(),
    /** What it was before, by the names of columns: of a change only what differs, and nothing of what was added. */
    before: jsonb('before').$type<Record<string, unknown>>(),
  },
  (table) => [index('changes_project').on(table.projectId, table.id), index('changes_row').on(table.rowId, table.id)],
);
