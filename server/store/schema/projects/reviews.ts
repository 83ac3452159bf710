import type { ReviewAnswerWord } from '@inkwell/core/model';
import { pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { workspaces } from '../access/people.ts';
import { moment, workspaceColumn } from '../columns.ts';
import { frames, projects } from './projects.ts';

/** Links by which somebody without an account looks at a project, by the hashes of their secrets. */
export const reviews = pgTable('reviews', {
  id: uuid('id').primaryKey().defaultRandom(),
  workspaceId: workspaceColumn().references(() => workspaces.id, { onDelete: 'cascade' }),
  projectId: uuid('project_id')
    .notNull()
    .references(() => projects.id, { onDelete: 'cascade' }),
  name: text('name').notNull(),
  hash: text('hash').notNull().unique(),
  /** By name, as it was then. */
  madeBy: text('made_by'),
  createdAt: moment('created_at').notNull().defaultNow(),
  endsAt: moment('ends_at').notNull(),
  withdrawnAt: moment('withdrawn_at'),
});

/** What was said of frames by whoever had a link. */
export const reviewAnswers = pgTable(
  'review_answers',
  {
    workspaceId: workspaceColumn(),
    reviewId: uuid('review_id')
      .notNull()
      .references(() => reviews.id, { onDelete: 'cascade' }),
    /** The review's: whoever hears of an answer knows by it what to ask for. */
    projectId: uuid('project_id').notNull(),
    frameId: uuid('frame_id')
      .notNull()
      .references(() => frames.id, { onDelete: 'cascade' }),
    answer: text('answer').$type<ReviewAnswerWord>().notNull(),
    word: text('word').notNull(),
    planHash: text('plan_hash').notNull(),
    answeredAt: moment('answered_at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.reviewId, table.frameId] })],
);
