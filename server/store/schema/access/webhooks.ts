import type { CallType, WebhookCall } from '@inkwell/core/model';
import { index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { moment, workspaceColumn } from '../columns.ts';
import { workspaces } from './people.ts';

/** Addresses that hear when a delivery is done. */
export const webhooks = pgTable('webhooks', {
  id: uuid('id').primaryKey().defaultRandom(),
  workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
  url: text('url').notNull(),
  /** What calls are signed by; it has to be read for each, so it is no hash. */
  secret: text('secret').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});

/** What was told to webhooks, or is to be. */
export const webhookCalls = pgTable(
  'webhook_calls',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    workspaceId: workspaceColumn(),
    webhookId: uuid('webhook_id')
      .notNull()
      .references(() => webhooks.id, { onDelete: 'cascade' }),
    type: text('type').$type<CallType>().notNull(),
    /** What it is about; a webhook hears of it once. Null where somebody tries it. */
    deliveryId: uuid('delivery_id'),
    /** The very text that is signed and sent. */
    body: text('body').notNull(),
    state: text('state').$type<WebhookCall['state']>().notNull().default('waiting'),
    tries: integer('tries').notNull().default(0),
    said: text('said'),
    createdAt: moment('created_at').notNull().defaultNow(),
    lastTriedAt: moment('last_tried_at'),
    nextTryAt: moment('next_try_at').defaultNow(),
  },
  (table) => [
    unique('webhook_calls_once').on(table.webhookId, table.deliveryId),
    index('webhook_calls_newest').on(table.webhookId, table.createdAt),
  ],
);
