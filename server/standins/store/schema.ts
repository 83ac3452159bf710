import type { NetworkPost, Rendition } from '@inkwell/core/model';
import { customType, integer, jsonb, pgSchema, primaryKey, text, timestamp, unique, uuid } from 'drizzle-orm/pg-core';

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

/** The simulated networks keep what was posted to them apart from everything of the program's. */
export const standIns = pgSchema('standins');

/** Numbers posts in the order in which they are published. */
export const published = standIns.sequence('published');

export const accounts = standIns.table('accounts', {
  network: text('network').primaryKey(),
  token: text('token').notNull(),
});

export const posts = standIns.table(
  'posts',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    network: text('network').notNull(),
    place: text('place').notNull(),
    /** Asked for twice under one key, it is one post. */
    key: text('key').notNull(),
    state: text('state').$type<NetworkPost['state']>().notNull().default('open'),
    pieces: integer('pieces').notNull(),
    columns: integer('columns').notNull(),
    caption: text('caption').notNull(),
    /** Null until it is published. */
    number: integer('number'),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [unique('posts_key').on(table.network, table.key)],
);

export const files = standIns.table(
  'files',
  {
    postId: uuid('post_id')
      .notNull()
      .references(() => posts.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    sha256: text('sha256').notNull(),
    altText: text('alt_text').notNull(),
    kept: jsonb('kept').$type<Rendition>().notNull(),
    data: bytea('data').notNull(),
  },
  (table) => [primaryKey({ columns: [table.postId, table.number] })],
);

export const renditions = standIns.table(
  'renditions',
  {
    postId: uuid('post_id')
      .notNull()
      .references(() => posts.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    shownWidth: integer('shown_width').notNull(),
    rendition: jsonb('rendition').$type<Rendition>().notNull(),
    data: bytea('data').notNull(),
  },
  (table) => [primaryKey({ columns: [table.postId, table.number, table.shownWidth] })],
);
