import { sql } from 'drizzle-orm';
import type { Queryable } from './database.ts';
import type { WorkLane, WorkTask } from './schema/index.ts';
import type { ClaimedWork } from './work.ts';

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
 * The most urgent comes first. Of what is as urgent, projects take turns, and of one project the highest rank comes first.
 */
export async function claimWork(db: Queryable, worker: number, asked: ClaimAsked): Promise<ClaimedWork | null> {
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
    }>(sql`
      with recursive waiting (turn) as (
        (select turn from work where state = 'waiting' and lane = ${lane} order by turn limit 1)
        union all
        select (
          select turn from work where state = 'waiting' and lane = ${lane} and turn > waiting.turn order by turn limit 1
        ) from waiting where waiting.turn is not null
      ), heads as materialized (
        select head.id, turns.at from waiting
        cross join lateral (
          select id from work as next
          where state = 'waiting' and lane = ${lane} and next.turn = waiting.turn
            and priority >= ${least} and not_before <= now() and (${mayLook} or kind <> 'analyse')
            and (after is null or not exists (
              select from work as before
              where before.workspace_id is not distinct from next.workspace_id and before.key = next.after
                and before.state in ('waiting', 'working')))
          order by priority desc, rank desc
          limit ${heads}) as head
        left join turns on turns.turn = waiting.turn
      ), next as materialized (
        select work.id, work.turn, work.pixels from work join heads on heads.id = work.id
        where state = 'waiting'
        order by priority desc, heads.at asc nulls first, rank desc
        limit 1
        for update of work skip locked
      ), fitting as (
        select id, turn from next where ${room}::float8 is null or pixels = 0 or pixels <= ${room}::float8
      ), turned as (
        insert into turns (turn, at) select turn, clock_timestamp() from fitting
        on conflict (turn) do update set at = excluded.at
      ), claimed as (
        update work set state = 'working', worker = ${worker}, attempts = attempts + 1
        from fitting where work.id = fitting.id
        returning work.id, key, task, attempts, work.pixels, wanted_by, workspace_id
      )
      select case when exists (select from next) then 0 else (select count(*)::int from heads) end as seen, claimed.*
      from (select) as one left join claimed on true`);
    const [row] = rows;
    if (row?.id) {
      const { id, key, task, attempts, pixels, wanted_by: wantedBy, workspace_id: workspaceId } = row;
      return { id: Number(id), key, task, attempts, pixels: Number(pixels), wantedBy, workspaceId };
    }
    // Nothing there, or what comes next does not fit; otherwise others were just taking all that was looked at.
    if (!row || row.seen === 0) return null;
  }
  return null;
}
