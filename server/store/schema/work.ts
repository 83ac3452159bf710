import type { KeepMark, PictureSource } from '@inkwell/core/model';
import { type SQL, sql } from 'drizzle-orm';
import {
  bigint,
  check,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgSequence,
  pgTable,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { type KeptPlan, moment, personColumn } from './columns.ts';
import { deliveries } from './projects/deliveries.ts';

/** What there is to do. */
export type WorkTask =
  /** Encodes the files of a plan, measures them, and keeps both. */
  | {
      kind: 'plan';
      plan: KeptPlan /** Another way to make a frame's file: it shares the frame's pixels. */;
      isWay: boolean;
    }
  /** Asks for all that is not known yet of a project's frames. */
  | { kind: 'measure'; projectId: string }
  /** Looks at a page or frame of a file for what matters in it. */
  | { kind: 'analyse'; picture: PictureSource }
  /** Measures what is left of marks where the file is shown small. */
  | { kind: 'detail'; hash: string; plan: KeptPlan; marks: KeepMark[]; shownWidths: number[] }
  /** Measures how well the words of a plan's files can be read where they are shown. */
  | { kind: 'legibility'; hash: string; plan: KeptPlan; shownWidths: number[] }
  /** Finds out how a frame is uploaded best, as long as it is set as it was when that was asked for. */
  | { kind: 'survival'; frameId: string; hash: string }
  /** Puts the files of a plan into a delivery, at the positions that they have there. */
  | { kind: 'deliver'; deliveryId: string; planHash: string; positions: number[] }
  /** Uploads what a dry run has for one network, in its order; without a network, finds out what there is to upload. */
  | { kind: 'dry run'; dryRunId: string; network: string | null }
  /** Tells a webhook something. */
  | { kind: 'call'; callId: string }
  /** Sends a mail. */
  | { kind: 'mail'; mailId: string }
  /** Writes to whoever has forgotten a password, if there is an account with the address. @see newPassword.ts */
  | { kind: 'forgotten'; email: string; address: string | null; origin: string };

/** Who does what: pictures on the cores of a machine; uploads and calls, which mostly wait for others. */
export type WorkLane = 'cores' | 'uploads' | 'calls';

/** Work of no project: of the library. */
export const libraryTurn = '00000000-0000-0000-0000-000000000000';

/** Work that takes longer than a request should: one row for each, gone when it is done. See store/work.ts. */
export const work = pgTable(
  'work',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    /** The workspace that it is of; null where it is of the door, which is of none. */
    workspaceId: uuid('workspace_id').default(sql`inkwell_workspace()`),
    /** What it is about. Asked for twice in a workspace, it is one. */
    key: text('key').notNull(),
    task: jsonb('task').$type<WorkTask>().notNull(),
    kind: text('kind')
      .$type<WorkTask['kind']>()
      .notNull()
      .generatedAlwaysAs((): SQL => sql`task ->> 'kind'`),
    lane: text('lane')
      .$type<WorkLane>()
      .notNull()
      .generatedAlwaysAs(
        (): SQL =>
          sql`case task ->> 'kind' when 'dry run' then 'uploads' when 'call' then 'calls' when 'mail' then 'calls' when 'forgotten' then 'calls' else 'cores' end`,
      ),
    askedBy: personColumn('asked_by'),
    /** The person who waits for it, or the workspace where nobody is known to: people take turns. */
    waiter: uuid('waiter')
      .notNull()
      .default(sql`coalesce(inkwell_person(), inkwell_workspace(), '00000000-0000-0000-0000-000000000000')`),
    /** The project that waits for it, or `libraryTurn`: projects of one person take turns. */
    turn: uuid('turn').notNull().default(libraryTurn),
    /** About so many pixels lie in memory while it is done. */
    pixels: bigint('pixels', { mode: 'number' }).notNull().default(0),
    askedAt: moment('asked_at').notNull().defaultNow(),
    priority: integer('priority').notNull(),
    /** Among those of one priority the highest comes first. */
    rank: doublePrecision('rank').notNull(),
    /** The key of other work that has to be over first. */
    after: text('after'),
    deliveryId: uuid('delivery_id').references(() => deliveries.id, { onDelete: 'cascade' }),
    /** The frames that it is measured for; null where it is done whatever has become of them. */
    wantedBy: uuid('wanted_by').array(),
    state: text('state').$type<'waiting' | 'working' | 'failed'>().notNull().default('waiting'),
    attempts: integer('attempts').notNull().default(0),
    /** The number of the worker that has it. */
    worker: integer('worker'),
    notBefore: moment('not_before').notNull().defaultNow(),
    /** Why the last attempt failed, in words. */
    failure: text('failure'),
  },
  (table) => [
    unique('work_key').on(table.workspaceId, table.key).nullsNotDistinct(),
    check('work_fenced', sql`workspace_id is not null or task ->> 'kind' in ('mail', 'forgotten')`),
    index('work_next').on(table.state, table.lane, table.waiter, table.turn, table.priority, table.rank),
    index('work_delivery').on(table.deliveryId),
  ],
);

/** When each person, and each project, had the last turn at being worked for; those that had none for longest come next. */
export const turns = pgTable('turns', {
  turn: uuid('turn').primaryKey(),
  at: moment('at').notNull(),
});

/** Every worker that starts takes the next number. */
export const workers = pgSequence('workers', { maxValue: 2_147_483_647, cycle: true });

/** Things that are done once in the life of a database, such as filling in the demo. */
export const milestones = pgTable('milestones', {
  name: text('name').primaryKey(),
  reachedAt: moment('reached_at').notNull().defaultNow(),
});
