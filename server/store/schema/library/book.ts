import type { PlaceSetSettings, SheetContent } from '@inkwell/core/model';
import { boolean, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { workspaces } from '../access/people.ts';
import { moment, workspaceColumn } from '../columns.ts';

/** Sheets that people made: what they say stands in their versions. Those that ship are part of the program. */
export const sheets = pgTable(
  'sheets',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
    /** Never changes: frames refer to places by it. */
    slug: text('slug').notNull(),
    /** The project that it is meant for alone. No foreign key: it stays while a frame could need it. */
    projectId: uuid('project_id'),
    /** The newest version. */
    version: integer('version').notNull().default(1),
    createdAt: moment('created_at').notNull().defaultNow(),
  },
  (table) => [unique('sheets_slug').on(table.workspaceId, table.slug)],
);

/** Every version of a sheet, as it was saved; none is ever changed. */
export const sheetVersions = pgTable(
  'sheet_versions',
  {
    workspaceId: workspaceColumn(),
    sheetId: uuid('sheet_id')
      .notNull()
      .references(() => sheets.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    /** Another version of the program may have put it there: `SheetContentSchema` reads it. */
    content: jsonb('content').$type<SheetContent>().notNull(),
    /** In which version every place has changed last, by its slug. */
    since: jsonb('since').$type<Record<string, number>>().notNull(),
    savedBy: text('saved_by').notNull().default(''),
    note: text('note').notNull().default(''),
    savedAt: moment('saved_at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.sheetId, table.number] })],
);

/** How sheets stand in the book, those that ship included: what is not said of one is as usual. */
export const shelf = pgTable(
  'shelf',
  {
    workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
    slug: text('slug').notNull(),
    /** From the top; null behind all that have one. */
    position: integer('position'),
    isAway: boolean('is_away').notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.workspaceId, table.slug] })],
);

/** Named choices of places that are used again. */
export const placeSets = pgTable('place_sets', {
  id: uuid('id').primaryKey().defaultRandom(),
  workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
  /** Another version of the program may have put it there: `PlaceSetSettingsSchema` reads it. */
  settings: jsonb('settings').$type<PlaceSetSettings>().notNull(),
  version: integer('version').notNull().default(1),
  createdAt: moment('created_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});
