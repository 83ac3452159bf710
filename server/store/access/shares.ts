import { type Share, type ShareKind, shareKinds, type Use, wholeShare } from '@inkwell/core/model';
import { and, eq, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { shares, type WorkTask } from '../schema/index.ts';

/** Any number that nobody else locks under. */
const shareLock = 7_220_414;

/** What people ask for, and wait for; what is measured of frames follows from that by itself. */
const jobKinds = ['analyse', 'deliver', 'dry run', 'survival'] as const satisfies readonly WorkTask['kind'][];

/** What the database knows of use; uploads and requests are counted as they come. */
export type KeptUse = Pick<Use, 'bytes' | 'pixels' | 'jobs'>;

const isOf = (workspaceId: string, personId: string | null) =>
  and(eq(shares.workspaceId, workspaceId), personId === null ? isNull(shares.personId) : eq(shares.personId, personId));

/** The share of somebody in a workspace. @param personId null for that of the workspace */
export async function shareOf(db: Queryable, workspaceId: string, personId: string | null): Promise<Share> {
  const [row] = await db.select().from(shares).where(isOf(workspaceId, personId));
  if (!row) return wholeShare;
  const { workspaceId: _workspace, personId: _person, ...share } = row;
  return share;
}

/** Sets it. Where it is as much as there is, nothing is kept. */
export async function setShareOf(
  db: Queryable,
  workspaceId: string,
  personId: string | null,
  share: Share,
): Promise<void> {
  if (shareKinds.every((kind) => share[kind] === null)) {
    await db.delete(shares).where(isOf(workspaceId, personId));
    return;
  }
  await db
    .insert(shares)
    .values({ workspaceId, personId, ...share })
    .onConflictDoUpdate({ target: [shares.workspaceId, shares.personId], set: share });
}

/** How much of the machine is used by somebody in a workspace, or by all of it. What was deleted counts until it is cleared away. */
export async function usedNow(db: Queryable, workspaceId: string, personId: string | null): Promise<KeptUse> {
  const kinds = sql.join(
    jobKinds.map((kind) => sql`${kind}`),
    sql`, `,
  );
  const { rows } = await db.execute<{ bytes: string; pixels: string; jobs: number }>(sql`
    select (
      select coalesce(sum(bytes), 0) from blobs where sha256 in (
        select sha256 from originals
        where workspace_id = ${workspaceId} and (${personId}::uuid is null or added_by = ${personId})
        union select delivery_files.sha256 from delivery_files join deliveries on deliveries.id = delivery_id
        where deliveries.workspace_id = ${workspaceId} and (${personId}::uuid is null or asked_by = ${personId})
        union select sha256 from own_fonts where workspace_id = ${workspaceId} and ${personId}::uuid is null)
    ) as bytes, coalesce(sum(pixels) filter (where state = 'working'), 0) as pixels,
      (count(*) filter (where kind in (${kinds})))::int as jobs
    from work where workspace_id = ${workspaceId} and state in ('waiting', 'working')
      and (${personId}::uuid is null or asked_by = ${personId})`);
  const [row] = rows;
  return { bytes: Number(row?.bytes ?? 0), pixels: Number(row?.pixels ?? 0), jobs: row?.jobs ?? 0 };
}

/** A share that is used up. */
export interface UsedUp {
  kind: ShareKind;
  /** Whether it is that of the workspace, and not of whoever asks. */
  isOfAll: boolean;
  share: number;
  used: number;
}

/**
 * Looks, at the end of a transaction that has added something, whether that is more than the shares of its workspace and of whoever asks.
 * Of several at once each sees what the others have added: they end one after the other.
 *
 * @param db of a workspace, for whoever asks @returns the first share that is exceeded; null where none is
 */
export async function exceeded(db: Queryable, kinds: readonly ('bytes' | 'jobs')[]): Promise<UsedUp | null> {
  const { rows } = await db.execute<{ workspace_id: string; person_id: string | null } & Share>(sql`
    select workspace_id, person_id, bytes::float8, jobs::float8 from shares
    where workspace_id = inkwell_workspace() and (person_id is null or person_id = inkwell_person())
    order by person_id nulls last`);
  const bounded = rows.filter((row) => kinds.some((kind) => row[kind] !== null));
  if (bounded.length === 0) return null;
  await db.execute(sql`select pg_advisory_xact_lock(${shareLock}, hashtext(inkwell_workspace()::text))`);
  for (const row of bounded) {
    const used = await usedNow(db, row.workspace_id, row.person_id);
    for (const kind of kinds) {
      const share = row[kind];
      if (share !== null && used[kind] > share) {
        return { kind, isOfAll: row.person_id === null, share, used: used[kind] };
      }
    }
  }
  return null;
}
