import { isNotNull, sql } from 'drizzle-orm';
import type { Database, Queryable } from './database.ts';
import { shares, type WorkLane, type WorkTask } from './schema/index.ts';
import type { ClaimedWork } from './work.ts';

/** Any number that nobody else locks under. */
const shareLock = 7_220_413;

/** So many of each project are looked at for the next thing to do: others may be taking the first of them just now. */
const heads = 8;
const claimTries = 5;

export interface ClaimAsked {
  lane: WorkLane;
  /** The least priority that is taken. */
  least: number;
  /** Whether pictures may be looked at. */
  mayLook?: boolean;
  /** So many pixels may be added to what is in work; null where nothing is: then whatever comes next is taken. */
  room?: number | null;
}

/**
 * Takes the next thing to do, so that nobody else has it; null where there is none, or the next does not fit. Nothing is taken
 * before its turn because it is smaller: the large would never be done.
 *
 * The most urgent comes first. Of what is as urgent, people take turns, then the projects of one person, and of one project the highest
 * rank comes first. Of a workspace or a person that has its share of pixels in work already nothing more is taken.
 */
export async function claimWork(db: Database, worker: number, asked: ClaimAsked): Promise<ClaimedWork | null> {
  const [bounded] = await db.select({ id: shares.workspaceId }).from(shares).where(isNotNull(shares.pixels)).limit(1);
  if (!bounded) return claimNext(db, worker, asked);
  // Two workers that claim at once would each take what is left of a share.
  return db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(${shareLock})`);
    return claimNext(tx, worker, asked);
  });
}

async function claimNext(db: Queryable, worker: number, asked: ClaimAsked): Promise<ClaimedWork | null> {
  const { lane, least, mayLook = true, room = null } = asked;
  for (let tries = claimTries; tries > 0; tries -= 1) {
    const { rows } = await db.execute<{
      seen: number;
      id: string | null;
      key: string;
      task: WorkTask;
      attempts: number;
      pixels: string;
      wanted_by: string[] | null;
      workspace_id: string | null;
      asked_by: string | null;
    }>(sql`
      with recursive waiting (waiter, turn) as (
        (select waiter, turn from work where state = 'waiting' and lane = ${lane} order by waiter, turn limit 1)
        union all
        select next.waiter, next.turn from waiting cross join lateral (
          select waiter, turn from work
          where state = 'waiting' and lane = ${lane} and (work.waiter, work.turn) > (waiting.waiter, waiting.turn)
          order by waiter, turn limit 1) as next
      ), used_up as materialized (
        select shares.workspace_id, shares.person_id from shares
        where shares.pixels <= (
          select sum(work.pixels) from work
          where work.state = 'working' and work.workspace_id = shares.workspace_id
            and (shares.person_id is null or work.asked_by = shares.person_id))
      ), heads as materialized (
        select head.id, whoever.at as waiter_at, turns.at from waiting
        cross join lateral (
          select id from work as next
          where state = 'waiting' and lane = ${lane} and next.waiter = waiting.waiter and next.turn = waiting.turn
            and priority >= ${least} and not_before <= now() and (${mayLook} or kind <> 'analyse')
            and (after is null or not exists (
              select from work as before
              where before.workspace_id is not distinct from next.workspace_id and before.key = next.after
                and before.state in ('waiting', 'working')))
            and not exists (
              select from used_up
              where used_up.workspace_id = next.workspace_id
                and (used_up.person_id is null or used_up.person_id = next.asked_by))
          order by priority desc, rank desc
          limit ${heads}) as head
        left join turns on turns.turn = waiting.turn
        left join turns as whoever on whoever.turn = waiting.waiter
      ), next as materialized (
        select work.id, work.waiter, work.turn, work.pixels from work join heads on heads.id = work.id
        where state = 'waiting'
        order by priority desc, heads.waiter_at asc nulls first, heads.at asc nulls first, rank desc
        limit 1
        for update of work skip locked
      ), fitting as (
        select id, waiter, turn from next where ${room}::float8 is null or pixels = 0 or pixels <= ${room}::float8
      ), turned as (
        insert into turns (turn, at)
        select fitting.turn, clock_timestamp() from fitting
        union all select waiter, clock_timestamp() from fitting where waiter <> fitting.turn
        -- Always in the same order: two that claim at once never wait for each other.
        order by 1
        on conflict (turn) do update set at = excluded.at
      ), claimed as (
        update work set state = 'working', worker = ${worker}, attempts = attempts + 1
        from fitting where work.id = fitting.id
        returning work.id, key, task, attempts, work.pixels, wanted_by, workspace_id, asked_by
      )
      select case when exists (select from next) then 0 else (select count(*)::int from heads) end as seen, claimed.*
      from (select) as one left join claimed on true`);
    const [row] = rows;
    if (row?.id) {
      const { id, key, task, attempts, pixels } = row;
      const [wantedBy, workspaceId, askedBy] = [row.wanted_by, row.workspace_id, row.asked_by];
      return { id: Number(id), key, task, attempts, pixels: Number(pixels), wantedBy, workspaceId, askedBy };
    }
    // Nothing there, or what comes next does not fit; otherwise others were just taking all that was looked at.
    if (!row || row.seen === 0) return null;
  }
  return null;
}
