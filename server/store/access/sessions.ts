import type { Session } from '@inkwell/core/model';
import { and, desc, eq, gt, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { Queryable } from '../database.ts';
import { secrets, sessions } from '../schema/index.ts';

/** What a session holds. Nothing of it changes while it lives: one that was ended is never put back by a request on its way. */
export const KeptSessionSchema = z.object({
  personId: z.uuid(),
  /** What the account's password was kept as, shortened: a session ends when that changes. */
  credential: z.string(),
  since: z.iso.datetime(),
  device: z.enum(['computer', 'phone or tablet']),
  /** From which it began. */
  address: z.string(),
});
export type KeptSession = z.infer<typeof KeptSessionSchema>;

const isOf = (personId: string) => eq(sql`${sessions.sess} ->> 'personId'`, personId);
const isAlive = gt(sessions.expire, sql`now()`);

/** Where somebody is signed in, the one used last first. @param idleSeconds after which one ends that nobody uses */
export async function listSessions(
  db: Queryable,
  { personId, credential }: Pick<KeptSession, 'personId' | 'credential'>,
  thisId: string,
  idleSeconds: number,
): Promise<Session[]> {
  const isOfNow = eq(sql`${sessions.sess} ->> 'credential'`, credential);
  const rows = await db
    .select()
    .from(sessions)
    .where(and(isOf(personId), isOfNow, isAlive))
    .orderBy(desc(sessions.expire));
  return rows.map(({ sid, sess, expire }) => {
    const { since, device, address } = KeptSessionSchema.parse(sess);
    const lastUsedAt = new Date(expire.getTime() - idleSeconds * 1000).toISOString();
    return { id: sid, device, address, since, lastUsedAt, isThis: sid === thisId };
  });
}

/** False where somebody has no such session. */
export async function endSession(db: Queryable, personId: string, id: string): Promise<boolean> {
  const rows = await db
    .delete(sessions)
    .where(and(eq(sessions.sid, id), isOf(personId)))
    .returning({ sid: sessions.sid });
  return rows.length > 0;
}

/** Ends all sessions of somebody, or all but one. */
export async function endSessions(db: Queryable, personId: string, except: string | null = null): Promise<void> {
  await db.delete(sessions).where(and(isOf(personId), except === null ? undefined : ne(sessions.sid, except)));
}

/** A secret that all servers share, as it is kept; whoever asks first decides. @param fresh what it is to be if there is none */
export async function sharedSecret(db: Queryable, name: string, fresh: string): Promise<string> {
  await db.insert(secrets).values({ name, value: fresh }).onConflictDoNothing();
  const [row] = await db.select({ value: secrets.value }).from(secrets).where(eq(secrets.name, name));
  if (!row) throw new Error(`The secret ${name} was not stored.`);
  return row.value;
}
