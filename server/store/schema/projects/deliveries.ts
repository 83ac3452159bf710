import type { Delivery, LeftOut, ManifestFile, PieceOfWhole, PlaceThen, PostingWords } from '@inkwell/core/model';
import { index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { workspaces } from '../access/people.ts';
import { type KeptPlan, moment, personColumn, workspaceColumn } from '../columns.ts';
import { blobs } from '../library/library.ts';

/** Where a mark lay in the picture of a frame when that was delivered. */
export interface MarkThen {
  name: string;
  isMust: boolean;
  rect: { left: number; top: number; width: number; height: number };
}

/** What one file of a delivery is to be, fixed when the delivery is asked for. */
export interface DeliveryItem {
  fileName: string;
  plan: KeptPlan;
  original: string;
  network: string;
  place: string;
  limit: { bytes: number; unit: 'kB' | 'MB' | 'MiB' };
  finish?: NonNullable<ManifestFile['finish']>;
  /** Its pixels across where they were chosen to be others than the place's. */
  uploadWidth?: number;
  /** Which piece of the plan's picture it is, where that is cut. */
  piece?: PieceOfWhole;
  /** The place as it was, and what is said where it is posted; not noted by earlier versions. */
  placeThen?: PlaceThen;
  posting?: PostingWords;
  /** What of the picture matters, in pixels of the file or of the whole that it is cut from. */
  marks?: MarkThen[];
  /** What forbids it, in words: it is left out. */
  blocked?: string[];
}

export const deliveries = pgTable('deliveries', {
  id: uuid('id').primaryKey().defaultRandom(),
  workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
  /** No foreign key: a delivery outlives its project. */
  projectId: uuid('project_id').notNull(),
  projectName: text('project_name').notNull(),
  pattern: text('pattern').notNull(),
  state: text('state').$type<Delivery['state']>().notNull().default('waiting'),
  items: jsonb('items').$type<DeliveryItem[]>().notNull(),
  /** How many items there are: a thousand of them are megabytes, which nobody unpacks to count them. */
  fileCount: integer('file_count').notNull(),
  failure: text('failure'),
  askedBy: personColumn('asked_by'),
  createdAt: moment('created_at').notNull().defaultNow(),
});

export const deliveryFiles = pgTable(
  'delivery_files',
  {
    workspaceId: workspaceColumn(),
    deliveryId: uuid('delivery_id')
      .notNull()
      .references(() => deliveries.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    /** Null where the file was left out. */
    sha256: text('sha256').references(() => blobs.sha256),
    file: jsonb('file').$type<ManifestFile>(),
    leftOut: jsonb('left_out').$type<LeftOut>(),
  },
  (table) => [
    primaryKey({ columns: [table.deliveryId, table.position] }),
    index('delivery_files_sha256').on(table.sha256),
  ],
);

/** Posts of a delivery that somebody has posted, each by the name of its first file. */
export const postedTicks = pgTable(
  'posted_ticks',
  {
    workspaceId: workspaceColumn(),
    deliveryId: uuid('delivery_id')
      .notNull()
      .references(() => deliveries.id, { onDelete: 'cascade' }),
    post: text('post').notNull(),
    postedAt: moment('posted_at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.deliveryId, table.post] })],
);
