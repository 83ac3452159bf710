import type { RowChange } from '../model/index.ts';

/** Rows of one table by their ids: what each is set to, by the names of its settings. */
export type Rows = ReadonlyMap<string, Readonly<Record<string, unknown>>>;

/** What was done to a row, as far as it takes to undo it. */
export type Undoable = Pick<RowChange, 'kind' | 'rowId' | 'before'>;

/**
 * Rows as they were before some changes of them. Each change is undone: what was added goes, what was taken out comes back, and what was
 * changed has its values of then.
 *
 * @param now the rows as they are
 * @param changes all that came since then, the newest first
 */
export function rowsBefore(now: Rows, changes: readonly Undoable[]): Map<string, Readonly<Record<string, unknown>>> {
  const then = new Map(now);
  for (const { kind, rowId, before } of changes) {
    if (kind === 'added') then.delete(rowId);
    else if (kind === 'removed') then.set(rowId, before ?? {});
    else {
      // A row that is not there was cleared away since: nothing is known of it but this.
      const row = then.get(rowId);
      if (row) then.set(rowId, { ...row, ...before });
    }
  }
  return then;
}
