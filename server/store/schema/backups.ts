import type { Backup } from '@inkwell/core/model';
import { boolean, doublePrecision, integer, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { bytes, moment } from './columns.ts';

/** Backups that were made, or are being made. */
export const backups = pgTable('backups', {
  id: uuid('id').primaryKey().defaultRandom(),
  path: text('path').notNull(),
  startedAt: moment('started_at').notNull().defaultNow(),
  takenAt: moment('taken_at'),
  files: integer('files').notNull().default(0),
  bytes: bytes('bytes').notNull().default(0),
  state: text('state').$type<Backup['state']>().notNull().default('making'),
  failure: text('failure'),
});

/** When backups are made by themselves, as the worker was told that makes them: one row for each folder. */
export const backupPlans = pgTable('backup_plans', {
  folder: text('folder').primaryKey(),
  everyHours: doublePrecision('every_hours').notNull(),
  keep: integer('keep').notNull(),
  isEncrypted: boolean('is_encrypted').notNull(),
  warnHours: doublePrecision('warn_hours').notNull(),
  since: moment('since').notNull().defaultNow(),
  /** When somebody asked for one at once; null once it has begun. */
  askedAt: moment('asked_at'),
});
