import {
  type Aim,
  asAbove,
  type Backing,
  type Composing,
  type Dimensions,
  type FramePosting,
  type Hands,
  type ImageFormat,
  keepNothing,
  type Lettering,
  type MetadataPolicy,
  nothingSaid,
  type OpaqueBacking,
  type Pins,
  type ProjectPosting,
  plainWeighing,
  type Ring,
  type Verdict,
  type Weighing,
  type Window,
} from '@inkwell/core/model';
import { boolean, doublePrecision, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { workspaces } from '../access/people.ts';
import { moment, workspaceColumn } from '../columns.ts';
import { originals } from '../library/library.ts';

export const projects = pgTable('projects', {
  id: uuid('id').primaryKey().defaultRandom(),
  workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
  name: text('name').notNull(),
  finishId: text('finish_id').notNull().default('plain'),
  keeping: jsonb('keeping').$type<MetadataPolicy>().notNull().default(keepNothing),
  composing: text('composing').$type<Composing>().notNull().default('seen'),
  lettering: jsonb('lettering').$type<Lettering>().notNull().default([]),
  posting: jsonb('posting').$type<ProjectPosting>().notNull().default(nothingSaid),
  pins: jsonb('pins').$type<Pins>().notNull().default({}),
  pattern: text('pattern').notNull().default('{name}_{network}_{place}_{dimensions}'),
  usualPlaces: jsonb('usual_places').$type<string[]>().notNull().default([]),
  usualAim: jsonb('usual_aim').$type<Aim>(),
  version: integer('version').notNull().default(1),
  createdAt: moment('created_at').notNull().defaultNow(),
  changedAt: moment('changed_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});

export const projectOriginals = pgTable(
  'project_originals',
  {
    workspaceId: workspaceColumn(),
    projectId: uuid('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' }),
    originalId: uuid('original_id')
      .notNull()
      .references(() => originals.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
  },
  (table) => [primaryKey({ columns: [table.projectId, table.originalId] })],
);

export const frames = pgTable(
  'frames',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    workspaceId: workspaceColumn(),
    projectId: uuid('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' }),
    originalId: uuid('original_id')
      .notNull()
      .references(() => originals.id, { onDelete: 'cascade' }),
    placeId: text('place_id').notNull(),
    window: jsonb('window').$type<Window>().notNull(),
    composed: boolean('composed').notNull().default(false),
    backing: jsonb('backing').$type<Backing>(),
    ring: jsonb('ring').$type<Ring>(),
    cutOut: boolean('cut_out').notNull().default(false),
    flatten: text('flatten'),
    stretch: doublePrecision('stretch').notNull().default(1),
    grid: jsonb('grid').$type<{ columns: number; rows: number }>(),
    closing: jsonb('closing').$type<OpaqueBacking>(),
    bridged: boolean('bridged').notNull().default(false),
    sharedQuality: boolean('shared_quality').notNull().default(true),
    format: text('format').$type<ImageFormat>().notNull(),
    weighing: jsonb('weighing').$type<Weighing>().notNull().default(plainWeighing),
    dimensions: jsonb('dimensions').$type<Dimensions>(),
    carriedFrom: jsonb('carried_from').$type<Dimensions>(),
    uploadWidth: integer('upload_width'),
    finishId: text('finish_id'),
    blend: doublePrecision('blend'),
    hands: jsonb('hands').$type<Hands>().notNull().default({}),
    posting: jsonb('posting').$type<FramePosting>().notNull().default(asAbove),
    verdict: jsonb('verdict').$type<Verdict>(),
    version: integer('version').notNull().default(1),
  },
  (table) => [unique('frames_one_per_place').on(table.projectId, table.originalId, table.placeId)],
);
