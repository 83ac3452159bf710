import { type RowChange, type Step, stepsTogether } from '@inkwell/core/model';
import { and, desc, eq, gt, inArray, lt, ne, or, type SQL, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { changes } from '../schema/index.ts';

/** What somebody did half a year ago is forgotten. */
const keptDays = 180;

/** A step with who did it, by an id that only the door knows the name of. */
export type StoredStep = Omit<Step, 'who'> & { personId: string | null };

/** All that concerns a project: its own rows, and the originals that are in it. */
const concerns = (projectId: string): SQL => sql`(
  changes.project_id = ${projectId} or (changes."table" = 'originals' and changes.row_id in (
    select original_id from project_originals where project_originals.project_id = ${projectId})))`;

/** What was done to a project, the last step first. @param before the id of a step: only earlier ones */
export async function listSteps(db: Queryable, projectId: string, before: number | null = null): Promise<StoredStep[]> {
  return steps(db, projectId, sql`${before}::bigint is null or max(id) < ${before}::bigint`);
}

/** One step of a project; null where there is none. */
export async function findStep(db: Queryable, projectId: string, id: number): Promise<StoredStep | null> {
  const [found = null] = await steps(db, projectId, sql`max(id) = ${id}::bigint`);
  return found;
}

async function steps(db: Queryable, projectId: string, having: SQL): Promise<StoredStep[]> {
  const { rows } = await db.execute<{
    id: string;
    at: string;
    person_id: string | null;
    did: Step['did'];
  }>(sql`
    with own as materialized (select * from changes where ${concerns(projectId)}
    ), listed as (
      select step, at, person_id, max(id) as id from own group by step, at, person_id
      having ${having} order by max(id) desc limit ${stepsTogether}
    ), kinds as (
      select listed.id, "table", kind, count(distinct row_id)::int as count,
        coalesce(array_agg(distinct setting) filter (where setting is not null), '{}') as settings
      from listed join own using (step, at)
      left join lateral jsonb_object_keys(case kind when 'changed' then "before" else '{}' end) as setting on true
      group by listed.id, "table", kind
    )
    select listed.id, to_char(listed.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at, person_id,
      (select jsonb_agg(jsonb_build_object('table', "table", 'kind', kind, 'count', count, 'settings', settings)
        order by "table", kind) from kinds where kinds.id = listed.id) as did
    from listed order by listed.id desc`);
  return rows.map(({ id, at, person_id: personId, did }) => ({ id: Number(id), at, personId, did }));
}

/** A change with the row that it is of. */
export type StoredChange = Pick<RowChange, 'table' | 'kind' | 'rowId' | 'before'>;

const columns = { table: changes.table, kind: changes.kind, rowId: changes.rowId, before: changes.before };

/** All changes since a step. */
interface Since {
  step: number;
  /** Whether that step is one of them. */
  isIncluded: boolean;
}

function since({ step, isIncluded }: Since): SQL | undefined {
  return isIncluded ? or(gt(changes.id, step), isOfStep(step)) : gt(changes.id, step);
}

const isOfStep = (step: number): SQL =>
  sql`(${changes.step}, ${changes.at}) = (select step, at from changes where id = ${step})`;

/** What was done to the rows of a project since a step, the last first. With the id of a frame, to no other frame. */
export function changesOfProject(
  db: Queryable,
  projectId: string,
  { frameId, ...moment }: Since & { frameId: string | null },
): Promise<StoredChange[]> {
  const isAsked = frameId === null ? undefined : or(ne(changes.table, 'frames'), eq(changes.rowId, frameId));
  return db
    .select(columns)
    .from(changes)
    .where(and(eq(changes.projectId, projectId), since(moment), isAsked))
    .orderBy(desc(changes.id));
}

/** The same of originals, whichever projects they are in. */
export const changesOfOriginals = (db: Queryable, ids: readonly string[], moment: Since): Promise<StoredChange[]> =>
  db
    .select(columns)
    .from(changes)
    .where(and(eq(changes.table, 'originals'), inArray(changes.rowId, [...ids]), since(moment)))
    .orderBy(desc(changes.id));

/** Which rows a step has done something to. */
export async function touchedBy(db: Queryable, projectId: string, step: number): Promise<StoredChange[]> {
  return db
    .select(columns)
    .from(changes)
    .where(and(isOfStep(step), concerns(projectId)));
}

/** Puts the pictures of a project into an order; those that stand there already are not touched. */
export async function orderOriginals(db: Queryable, projectId: string, ids: readonly string[]): Promise<void> {
  await db.execute(sql`
    update project_originals set position = wanted.position - 1
    from unnest(${sql.param([...ids])}::uuid[]) with ordinality as wanted (id, position)
    where project_id = ${projectId} and original_id = wanted.id and project_originals.position <> wanted.position - 1`);
}

/** Forgets what was done long ago, and to what is not there any more. */
export async function clearHistory(db: Queryable): Promise<void> {
  const isGone = sql`(${changes.projectId} is not null and not exists (select from projects where projects.id = ${changes.projectId}))
    or (${changes.table} = 'originals' and not exists (select from originals where originals.id = ${changes.rowId}))`;
  await db.delete(changes).where(or(lt(changes.at, sql`now() - make_interval(days => ${keptDays})`), isGone));
}
