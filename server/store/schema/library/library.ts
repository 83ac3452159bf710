import type {
  Decided,
  FontFile,
  LetterStyle,
  Mark,
  Origin,
  Original,
  Rewritten,
  Treatment,
  Trim,
  Words,
} from '@inkwell/core/model';
import {
  bigint,
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uuid,
} from 'drizzle-orm/pg-core';
import { workspaces } from '../access/people.ts';
import { bytea, bytes, moment, personColumn, workspaceColumn } from '../columns.ts';

/** Where the bytes of a blob lie: in the table of chunks, or in an object store beside the database. */
export type BlobPlace = 'database' | 's3';

/** One copy of every file, under the SHA-256 of its bytes. */
export const blobs = pgTable('blobs', {
  sha256: text('sha256').primaryKey(),
  bytes: bytes('bytes').notNull(),
  place: text('place').$type<BlobPlace>().notNull().default('database'),
  createdAt: moment('created_at').notNull().defaultNow(),
});

/** Objects that no blob needs any more. They are taken out of their store one by one, after what has made them unneeded. */
export const unneededObjects = pgTable('unneeded_objects', {
  sha256: text('sha256').primaryKey(),
});

/** The bytes of a blob in pieces of at most 1 MiB, so that none has to be held in memory whole. */
export const blobChunks = pgTable(
  'blob_chunks',
  {
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256, { onDelete: 'cascade' }),
    index: integer('index').notNull(),
    data: bytea('data').notNull(),
  },
  (table) => [primaryKey({ columns: [table.sha256, table.index] })],
);

export const originals = pgTable(
  'originals',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    fileName: text('file_name').notNull(),
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256),
    bytes: bytes('bytes').notNull(),
    format: text('format').$type<Original['format']>().notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    hasAlpha: boolean('has_alpha').notNull(),
    page: integer('page').notNull().default(0),
    pages: integer('pages').notNull().default(1),
    words: jsonb('words').$type<Words>().notNull().default({ credit: '', copyright: '', altText: '' }),
    origin: jsonb('origin').$type<Origin>().notNull().default({ position: null, device: null }),
    marks: jsonb('marks').$type<Mark[]>().notNull().default([]),
    decided: jsonb('decided').$type<Decided[]>().notNull().default([]),
    trim: jsonb('trim').$type<Trim>(),
    finishId: text('finish_id'),
    blend: doublePrecision('blend'),
    /** How it was made of another drawing; null where it came as it is. */
    rewritten: jsonb('rewritten').$type<Rewritten>(),
    version: integer('version').notNull().default(1),
    addedBy: personColumn('added_by'),
    createdAt: moment('created_at').notNull().defaultNow(),
    deletedAt: moment('deleted_at'),
  },
  (table) => [index('originals_sha256').on(table.sha256)],
);

/** What was seen in a page or frame of a file, by the newest version of the program that has looked at it. */
export const analyses = pgTable(
  'analyses',
  {
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256, { onDelete: 'cascade' }),
    page: integer('page').notNull(),
    version: integer('version').notNull(),
    /** Another version of the program may have put it there: `AnalysisSchema` reads it. */
    analysis: jsonb('analysis').$type<unknown>().notNull(),
    seenAt: moment('seen_at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.sha256, table.page] })],
);

/** Finishes that people made; those that ship are part of the program. */
export const finishes = pgTable('finishes', {
  id: uuid('id').primaryKey().defaultRandom(),
  workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
  name: text('name').notNull(),
  description: text('description').notNull(),
  treatment: jsonb('treatment').$type<Treatment>().notNull(),
  version: integer('version').notNull().default(1),
  createdAt: moment('created_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});

/** Styles of words that people made; those that ship are part of the program. */
export const letterStyles = pgTable('letter_styles', {
  id: uuid('id').primaryKey().defaultRandom(),
  workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
  name: text('name').notNull(),
  style: jsonb('style').$type<LetterStyle>().notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});

/** Fonts of people's own, by what their file is. */
export const ownFonts = pgTable(
  'own_fonts',
  {
    workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
    id: text('id').notNull(),
    name: text('name').notNull(),
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256),
    weight: jsonb('weight').$type<FontFile['weight']>().notNull(),
    width: jsonb('width').$type<FontFile['width']>().notNull(),
    createdAt: moment('created_at').notNull().defaultNow(),
    deletedAt: moment('deleted_at'),
  },
  (table) => [primaryKey({ columns: [table.workspaceId, table.id] })],
);

/** A number for each workspace that has changed a sheet, a font or a finish, and rises whenever it does: triggers see to that. See libraryVersion.ts. */
export const libraryVersions = pgTable('library_versions', {
  workspaceId: uuid('workspace_id').primaryKey(),
  number: bigint('number', { mode: 'number' }).notNull(),
});
