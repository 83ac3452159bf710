import type { Person } from '@inkwell/core/model';
import { and, asc, eq, inArray, lt, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { people, recoveryCodes } from '../schema/index.ts';

/** Any number that nothing else is locked under. */
const peopleLock = 7_220_414;

/** Waits until no other transaction changes who may do what; none does until this one ends. */
export const lockPeople = async (tx: Queryable): Promise<void> => {
  await tx.execute(sql`select pg_advisory_xact_lock(${peopleLock})`);
};

/** Somebody with what proves who it is. */
export interface Account {
  person: Person;
  passwordHash: string;
  /** Null where none is asked for. */
  factorSecret: string | null;
}

export const toPerson = ({ id, name, email, factorSince, createdAt }: typeof people.$inferSelect): Person => ({
  id,
  name,
  email,
  hasSecondFactor: factorSince !== null,
  createdAt: createdAt.toISOString(),
});

const toAccount = (row: typeof people.$inferSelect | undefined): Account | null =>
  row
    ? {
        person: toPerson(row),
        passwordHash: row.passwordHash,
        factorSecret: row.factorSince ? row.factorSecret : null,
      }
    : null;

export async function accountOf(db: Queryable, id: string): Promise<Account | null> {
  const [row] = await db.select().from(people).where(eq(people.id, id));
  return toAccount(row);
}

export async function accountByEmail(db: Queryable, email: string): Promise<Account | null> {
  const [row] = await db.select().from(people).where(eq(people.email, email));
  return toAccount(row);
}

/** Everybody, in the order in which they came. */
export async function listPeople(db: Queryable): Promise<Person[]> {
  return (await db.select().from(people).orderBy(asc(people.createdAt))).map(toPerson);
}

/** What some people are called, by id. */
export async function peopleNames(db: Queryable, ids: readonly string[]): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(inArray(people.id, [...new Set(ids)]));
  return new Map(rows.map(({ id, name }) => [id, name]));
}

export async function isAnybodyThere(db: Queryable): Promise<boolean> {
  const [row] = await db.select({ id: people.id }).from(people).limit(1);
  return row !== undefined;
}

/** @returns the id; null where somebody has this address already */
export async function addPerson(
  db: Queryable,
  values: { email: string; name: string; passwordHash: string },
): Promise<string | null> {
  const [row] = await db.insert(people).values(values).onConflictDoNothing().returning({ id: people.id });
  return row?.id ?? null;
}

export async function renamePerson(db: Queryable, id: string, name: string): Promise<void> {
  await db.update(people).set({ name }).where(eq(people.id, id));
}

/** Changes a password, as long as it is what it was. False where it is not. */
export async function setPasswordHash(db: Queryable, id: string, was: string, passwordHash: string): Promise<boolean> {
  const rows = await db
    .update(people)
    .set({ passwordHash })
    .where(and(eq(people.id, id), eq(people.passwordHash, was)))
    .returning({ id: people.id });
  return rows.length > 0;
}

/** Takes an account away for good, with its tokens. */
export async function removePerson(db: Queryable, id: string): Promise<void> {
  await db.delete(people).where(eq(people.id, id));
}

/** Keeps the secret of a second factor that nobody is asked for yet. False where one is asked for already. */
export async function offerFactor(db: Queryable, id: string, factorSecret: string): Promise<boolean> {
  const rows = await db
    .update(people)
    .set({ factorSecret })
    .where(and(eq(people.id, id), sql`${people.factorSince} is null`))
    .returning({ id: people.id });
  return rows.length > 0;
}

/** The secret of a second factor that is offered, and not asked for yet; null where there is none. */
export async function offeredFactor(db: Queryable, id: string): Promise<string | null> {
  const [row] = await db
    .select({ secret: people.factorSecret })
    .from(people)
    .where(and(eq(people.id, id), sql`${people.factorSince} is null`));
  return row?.secret ?? null;
}

/** Asks for the second factor from now on, as long as it is the one that was offered. False where it is not. */
export async function takeFactor(
  db: Queryable,
  id: string,
  secret: string,
  hashes: readonly string[],
): Promise<boolean> {
  const rows = await db
    .update(people)
    .set({ factorSince: sql`now()` })
    .where(and(eq(people.id, id), eq(people.factorSecret, secret), sql`${people.factorSince} is null`))
    .returning({ id: people.id });
  if (rows.length === 0) return false;
  await db.delete(recoveryCodes).where(eq(recoveryCodes.personId, id));
  await db.insert(recoveryCodes).values(hashes.map((hash) => ({ personId: id, hash })));
  return true;
}

export async function dropFactor(db: Queryable, id: string): Promise<void> {
  await db.update(people).set({ factorSecret: null, factorSince: null }).where(eq(people.id, id));
  await db.delete(recoveryCodes).where(eq(recoveryCodes.personId, id));
}

/** Takes the code of a half minute. False where one of it, or of a later one, was taken before. */
export async function takeStep(db: Queryable, id: string, step: number): Promise<boolean> {
  const rows = await db
    .update(people)
    .set({ factorStep: step })
    .where(and(eq(people.id, id), lt(people.factorStep, step)))
    .returning({ id: people.id });
  return rows.length > 0;
}

/** Uses up a recovery code. False where it is none, or was used before. */
export async function useRecoveryCode(db: Queryable, personId: string, hash: string): Promise<boolean> {
  const rows = await db
    .delete(recoveryCodes)
    .where(and(eq(recoveryCodes.personId, personId), eq(recoveryCodes.hash, hash)))
    .returning();
  return rows.length > 0;
}
