import type { SheetFinding } from '@inkwell/core/model';
import { asc, eq, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { columnsOf, sheetFindings } from '../schema/index.ts';

type Row = Omit<typeof sheetFindings.$inferSelect, 'workspaceId'>;

const toFinding = ({ measuredAt, field: _, ...row }: Row): SheetFinding => ({
  ...row,
  measuredOn: measuredAt.toISOString().slice(0, 10),
});

/** All differences that were found, in the order of their places. */
export async function listSheetFindings(db: Queryable): Promise<SheetFinding[]> {
  const rows = await db
    .select(columnsOf(sheetFindings))
    .from(sheetFindings)
    .orderBy(asc(sheetFindings.network), asc(sheetFindings.place), asc(sheetFindings.field));
  return rows.map(toFinding);
}

export async function findSheetFinding(db: Queryable, id: string): Promise<SheetFinding | null> {
  const [row] = await db.select(columnsOf(sheetFindings)).from(sheetFindings).where(eq(sheetFindings.id, id));
  return row ? toFinding(row) : null;
}

export type NewFinding = Pick<SheetFinding, 'network' | 'place' | 'change' | 'said' | 'measured' | 'dryRunId'>;

/**
 * Keeps what was found. The same number found again is only newer; another one takes the place of the one before, and asks to be looked
 * at again, while what was taken over stays in the book. What was put aside stays aside as long as the same is measured.
 */
export async function keepSheetFindings(db: Queryable, found: readonly NewFinding[]): Promise<void> {
  for (const one of found) {
    const isSame = sql`${sheetFindings.change} = excluded.change`;
    await db
      .insert(sheetFindings)
      .values({ ...one, field: one.change.field })
      .onConflictDoUpdate({
        target: [sheetFindings.workspaceId, sheetFindings.network, sheetFindings.place, sheetFindings.field],
        set: {
          change: one.change,
          said: one.said,
          measured: one.measured,
          measuredAt: sql`now()`,
          dryRunId: one.dryRunId,
          state: sql`case when ${isSame} then ${sheetFindings.state} else 'open' end`,
          version: sql`${sheetFindings.version} + case when ${isSame} then 0 else 1 end`,
        },
      });
  }
}

/** Takes a number over, puts it aside, or opens it again, on top of `version`. Null where somebody else did meanwhile. */
export async function setFindingState(
  db: Queryable,
  id: string,
  version: number,
  state: SheetFinding['state'],
): Promise<SheetFinding | null> {
  const [row] = await db
    .update(sheetFindings)
    .set({
      state,
      taken: state === 'taken over' ? sql`${sheetFindings.change}` : null,
      version: sql`${sheetFindings.version} + 1`,
    })
    .where(sql`${sheetFindings.id} = ${id} and ${sheetFindings.version} = ${version}`)
    .returning(columnsOf(sheetFindings));
  return row ? toFinding(row) : null;
}
