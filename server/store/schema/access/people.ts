import type { DoorEventKind, Mail, Role } from '@inkwell/core/model';
import { bigint, index, integer, json, pgTable, primaryKey, text, uuid, varchar } from 'drizzle-orm/pg-core';
import { moment } from '../columns.ts';

/** What belongs together: a studio with its pictures. */
export const workspaces = pgTable('workspaces', {
  id: uuid('id').primaryKey().defaultRandom(),
  name: text('name').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
});

/** Everybody with an account. */
export const people = pgTable('people', {
  id: uuid('id').primaryKey().defaultRandom(),
  /** In small letters. */
  email: text('email').notNull().unique(),
  name: text('name').notNull(),
  /** Argon2id, as its library writes it. */
  passwordHash: text('password_hash').notNull(),
  /** What an authenticator makes its codes from, in base 32. It has to be read for each code, so it is no hash. */
  factorSecret: text('factor_secret'),
  /** Null while the second factor is only set up, and asked for by nobody. */
  factorSince: moment('factor_since'),
  /** The number of the last half minute whose code was taken: none is taken twice. */
  factorStep: bigint('factor_step', { mode: 'number' }).notNull().default(0),
  createdAt: moment('created_at').notNull().defaultNow(),
});

const personId = () =>
  uuid('person_id')
    .notNull()
    .references(() => people.id, { onDelete: 'cascade' });
const workspaceId = () =>
  uuid('workspace_id')
    .notNull()
    .references(() => workspaces.id, { onDelete: 'cascade' });

/** Who may do what in a workspace. */
export const members = pgTable(
  'members',
  {
    workspaceId: workspaceId(),
    personId: personId(),
    role: text('role').$type<Role>().notNull(),
    since: moment('since').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.workspaceId, table.personId] })],
);

/** Codes for the day when an authenticator is lost, by their hashes; one that was used is gone. */
export const recoveryCodes = pgTable(
  'recovery_codes',
  { personId: personId(), hash: text('hash').notNull() },
  (table) => [primaryKey({ columns: [table.personId, table.hash] })],
);

/** Links by which people come in, by the hashes of their secrets; one that was taken or withdrawn is gone. */
export const invitations = pgTable('invitations', {
  id: uuid('id').primaryKey().defaultRandom(),
  workspaceId: workspaceId(),
  /** Null for the first account: whoever has its link says the address. */
  email: text('email'),
  role: text('role').$type<Role>().notNull(),
  hash: text('hash').notNull().unique(),
  invitedBy: uuid('invited_by').references(() => people.id, { onDelete: 'set null' }),
  createdAt: moment('created_at').notNull().defaultNow(),
  endsAt: moment('ends_at').notNull(),
});

/** Links by which people get a new password, by the hashes of their secrets; one that was used is gone. */
export const passwordResets = pgTable('password_resets', {
  hash: text('hash').primaryKey(),
  personId: personId(),
  endsAt: moment('ends_at').notNull(),
});

/** Who is signed in where, as connect-pg-simple keeps it; `sid` is a hash of what the cookie says. */
export const sessions = pgTable(
  'sessions',
  {
    sid: varchar('sid').primaryKey(),
    sess: json('sess').notNull(),
    expire: moment('expire').notNull(),
  },
  (table) => [index('sessions_expire').on(table.expire)],
);

/** Counted attempts, as rate-limiter-flexible keeps them. */
export const throttles = pgTable('throttles', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: integer('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number' }),
});

/** Mails that the program has written. */
export const mails = pgTable('mails', {
  id: uuid('id').primaryKey().defaultRandom(),
  to: text('to').notNull(),
  subject: text('subject').notNull(),
  /** Null where it was sent: links in it open doors. */
  text: text('text'),
  createdAt: moment('created_at').notNull().defaultNow(),
  state: text('state').$type<Mail['state']>().notNull(),
  tries: integer('tries').notNull().default(0),
  said: text('said'),
});

/** What happened at the door. */
export const doorEvents = pgTable('door_events', {
  id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
  at: moment('at').notNull().defaultNow(),
  kind: text('kind').$type<DoorEventKind>().notNull(),
  /** The workspace that it concerns; null where it concerns a person, or nobody who is known. */
  workspaceId: uuid('workspace_id').references(() => workspaces.id, { onDelete: 'cascade' }),
  personId: uuid('person_id').references(() => people.id, { onDelete: 'set null' }),
  who: text('who'),
  about: text('about'),
  address: text('address'),
});

/** What all servers have to have alike and nobody else may know. */
export const secrets = pgTable('secrets', { name: text('name').primaryKey(), value: text('value').notNull() });
