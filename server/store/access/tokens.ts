import type { Token } from '@inkwell/core/model';
import { and, desc, eq, gt, isNull, lt, or, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { tokens } from '../schema/index.ts';

type Row = typeof tokens.$inferSelect;

const toToken = ({ id, name, may, beginning, createdAt, endsAt, lastUsedAt }: Row): Token => ({
  id,
  name,
  may,
  beginning,
  createdAt: createdAt.toISOString(),
  endsAt: endsAt?.toISOString() ?? null,
  lastUsedAt: lastUsedAt?.toISOString() ?? null,
});

/** Whose a token is, and where it holds. */
export interface OfToken {
  workspaceId: string;
  /** Null without accounts. */
  personId: string | null;
}

const isOf = ({ workspaceId, personId }: OfToken) =>
  and(eq(tokens.workspaceId, workspaceId), personId === null ? isNull(tokens.personId) : eq(tokens.personId, personId));

/** Somebody's tokens that were not withdrawn, also those that have ended; the newest first. */
export async function listTokens(db: Queryable, of: OfToken): Promise<Token[]> {
  const rows = await db
    .select()
    .from(tokens)
    .where(and(isOf(of), isNull(tokens.withdrawnAt)))
    .orderBy(desc(tokens.createdAt));
  return rows.map(toToken);
}

/** @param days for which it holds; null for ever */
export async function addToken(
  db: Queryable,
  {
    days,
    ...values
  }: Pick<Row, 'workspaceId' | 'personId' | 'name' | 'may' | 'hash' | 'beginning'> & { days: number | null },
): Promise<Token> {
  const endsAt = days === null ? null : sql`now() + make_interval(days => ${days})`;
  const [row] = await db
    .insert(tokens)
    .values({ ...values, endsAt })
    .returning();
  if (!row) throw new Error('The token was not stored.');
  return toToken(row);
}

export interface HeldToken extends OfToken {
  token: Token;
}

/** The token with this hash, where it holds, and whose it is; null where it does not. */
export async function holdingToken(db: Queryable, hash: string): Promise<HeldToken | null> {
  const [row] = await db
    .select()
    .from(tokens)
    .where(
      and(eq(tokens.hash, hash), isNull(tokens.withdrawnAt), or(isNull(tokens.endsAt), gt(tokens.endsAt, sql`now()`))),
    );
  return row ? { token: toToken(row), workspaceId: row.workspaceId, personId: row.personId } : null;
}

/** Notes that a token was used: once a minute is enough. */
export async function noteUse(db: Queryable, id: string): Promise<void> {
  const isOld = or(isNull(tokens.lastUsedAt), lt(tokens.lastUsedAt, sql`now() - interval '1 minute'`));
  await db
    .update(tokens)
    .set({ lastUsedAt: sql`now()` })
    .where(and(eq(tokens.id, id), isOld));
}

/** Withdraws a token for good. @returns its name; null where it is not there, or is another's */
export async function withdrawToken(db: Queryable, id: string, of: OfToken): Promise<string | null> {
  const rows = await db
    .update(tokens)
    .set({ withdrawnAt: sql`now()` })
    .where(and(eq(tokens.id, id), isOf(of), isNull(tokens.withdrawnAt)))
    .returning({ name: tokens.name });
  return rows[0]?.name ?? null;
}
