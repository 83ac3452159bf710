import type { DryRun, DryRunOutcome, ManifestFile, SheetChange, SheetFinding } from '@inkwell/core/model';
import { index, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { workspaces } from '../access/people.ts';
import { type KeptPlan, moment, workspaceColumn } from '../columns.ts';
import { blobs } from '../library/library.ts';
import { deliveries, type MarkThen } from './deliveries.ts';

/** One file that a dry run uploads, fixed when the run begins. */
export interface DryRunItem {
  line: ManifestFile;
  /** Slugs: how the network is found, and what the place is called there. */
  network: string;
  place: string;
  /** The name of the first file of its post. */
  post: string;
  /** What it was drawn by, and what matters in it. */
  plan: KeptPlan;
  marks: MarkThen[];
}

/** Runs that upload files to the simulated networks. No foreign key to the project: a run outlives it, as its delivery does. */
export const dryRuns = pgTable('dry_runs', {
  id: uuid('id').primaryKey().defaultRandom(),
  workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
  projectId: uuid('project_id').notNull(),
  deliveryId: uuid('delivery_id').references(() => deliveries.id, { onDelete: 'cascade' }),
  state: text('state').$type<DryRun['state']>().notNull().default('waiting'),
  /** Empty until the delivery is done. */
  items: jsonb('items').$type<DryRunItem[]>().notNull().default([]),
  failure: text('failure'),
  createdAt: moment('created_at').notNull().defaultNow(),
});

/** What a dry run is waiting for at a network, and since when: it does not wait for ever. */
export const dryRunWaits = pgTable(
  'dry_run_waits',
  {
    workspaceId: workspaceColumn(),
    dryRunId: uuid('dry_run_id')
      .notNull()
      .references(() => dryRuns.id, { onDelete: 'cascade' }),
    network: text('network').notNull(),
    why: text('why').notNull(),
    since: moment('since').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.dryRunId, table.network] })],
);

export const dryRunFiles = pgTable(
  'dry_run_files',
  {
    workspaceId: workspaceColumn(),
    dryRunId: uuid('dry_run_id')
      .notNull()
      .references(() => dryRuns.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    outcome: jsonb('outcome').$type<DryRunOutcome>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.dryRunId, table.position] })],
);

/** The pictures of a dry run: what it uploads where no delivery has it, and what came back. */
export const dryRunPictures = pgTable(
  'dry_run_pictures',
  {
    workspaceId: workspaceColumn(),
    dryRunId: uuid('dry_run_id')
      .notNull()
      .references(() => dryRuns.id, { onDelete: 'cascade' }),
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256),
  },
  (table) => [
    primaryKey({ columns: [table.dryRunId, table.sha256] }),
    index('dry_run_pictures_sha256').on(table.sha256),
  ],
);

/** Differences between the spec book and what the networks really do, as dry runs have measured them: one for each number. */
export const sheetFindings = pgTable(
  'sheet_findings',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
    network: text('network').notNull(),
    /** Null where all of the network is meant. */
    place: text('place'),
    field: text('field').$type<SheetChange['field']>().notNull(),
    change: jsonb('change').$type<SheetChange>().notNull(),
    said: text('said').notNull(),
    measured: text('measured').notNull(),
    measuredAt: moment('measured_at').notNull().defaultNow(),
    dryRunId: uuid('dry_run_id').references(() => dryRuns.id, { onDelete: 'set null' }),
    state: text('state').$type<SheetFinding['state']>().notNull().default('open'),
    taken: jsonb('taken').$type<SheetChange>(),
    version: integer('version').notNull().default(1),
  },
  (table) => [
    unique('sheet_findings_one').on(table.workspaceId, table.network, table.place, table.field).nullsNotDistinct(),
  ],
);
