import type {
  DetailKept,
  FinishFigures,
  Legibility,
  MeasuredFile,
  SeamStep,
  Survival,
  Weight,
} from '@inkwell/core/model';
import { date, index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { workspaces } from '../access/people.ts';
import { bytes, moment, workspaceColumn } from '../columns.ts';
import { blobs } from './library.ts';

/** What finishing has done to a frame, as it was measured, by plan. */
export const figures = pgTable('figures', {
  planHash: text('plan_hash').primaryKey(),
  figures: jsonb('figures').$type<FinishFigures>().notNull(),
  measuredAt: moment('measured_at').notNull().defaultNow(),
});

/** Full-size encodings that were measured, by plan. */
export const weights = pgTable('weights', {
  planHash: text('plan_hash').primaryKey(),
  weight: jsonb('weight').$type<Weight>().notNull(),
  measuredAt: moment('measured_at').notNull().defaultNow(),
});

/** What is left of marks at small sizes, as it was measured, by what it depends on. */
export const details = pgTable('details', {
  hash: text('hash').primaryKey(),
  kept: jsonb('kept').$type<DetailKept[]>().notNull(),
  measuredAt: moment('measured_at').notNull().defaultNow(),
});

/** How well words can be read where their file is shown, as it was measured, by what it depends on. */
export const legibilities = pgTable('legibilities', {
  hash: text('hash').primaryKey(),
  found: jsonb('found').$type<Legibility[]>().notNull(),
  measuredAt: moment('measured_at').notNull().defaultNow(),
});

/** How plans were found to be uploaded best, by what that depends on. */
export const survivals = pgTable('survivals', {
  hash: text('hash').primaryKey(),
  survival: jsonb('survival').$type<Survival>().notNull(),
  measuredAt: moment('measured_at').notNull().defaultNow(),
});

/** The way to upload that is used for all frames of a place. */
export const learnedUploads = pgTable(
  'learned_uploads',
  {
    workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
    placeId: text('place_id').notNull(),
    survival: jsonb('survival').$type<Survival>().notNull(),
    learnedFrom: text('learned_from').notNull(),
    learnedOn: date('learned_on', { mode: 'string' }).notNull(),
    /** Of the place and of what its network does after an upload, as they were. */
    learnedFor: text('learned_for').notNull(),
  },
  (table) => [primaryKey({ columns: [table.workspaceId, table.placeId] })],
);

/** The finished files of plans as they were encoded while they were measured, so that a delivery encodes nothing. Bounded. */
export const encodings = pgTable(
  'encodings',
  {
    planHash: text('plan_hash').notNull(),
    /** In reading order, from 0. */
    piece: integer('piece').notNull(),
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256),
    bytes: bytes('bytes').notNull(),
    /** What it was found to be when it was opened again. The bytes that are kept are those: their SHA-256 is checked. */
    opened: jsonb('opened').$type<MeasuredFile>().notNull(),
    seams: jsonb('seams').$type<SeamStep[]>().notNull(),
    usedAt: moment('used_at').notNull().defaultNow(),
  },
  (table) => [
    primaryKey({ columns: [table.planHash, table.piece] }),
    index('encodings_sha256').on(table.sha256),
    index('encodings_used_at').on(table.usedAt),
  ],
);
