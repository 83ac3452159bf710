import equal from 'fast-deep-equal';

export type ById<Value> = Record<string, Value>;

/** A row as the server keeps it: `version` grows by one with every save. */
export interface Row {
  id: string;
  version: number;
}

/** What a bench knows of rows of one kind, ahead of what the server has. */
export interface Ledger<Kept extends Row, Settings> {
  /** How every row is set now: the part that undo and redo go over. */
  settings: ById<Settings>;
  /** The rows as the server has them. A row whose settings differ is still to be saved. */
  saved: ById<Kept>;
  /** Rows that were changed elsewhere while they were changed here, as they are there. */
  conflicts: ById<Kept>;
}

/** What was not saved yet when the page went, with the version that it was made on. */
export interface Left<Settings> {
  settings: Settings;
  version: number;
}

/**
 * Takes over what the server has, except where this bench has changes of its own, or has sent some: until the answer to those is
 * here, nobody can tell whether a row holds them, and they may have been undone meanwhile.
 */
export function adoptRows<Kept extends Row, Settings>(
  ledger: Ledger<Kept, Settings>,
  rows: readonly Kept[],
  left: ById<Left<Settings>>,
  sending: ReadonlySet<string>,
  settingsOf: (row: Kept) => Settings,
): Ledger<Kept, Settings> {
  const settings: ById<Settings> = {};
  const saved: ById<Kept> = {};
  for (const row of rows) {
    const mine = ledger.settings[row.id];
    const known = ledger.saved[row.id];
    const kept = left[row.id];
    if (mine && known && (sending.has(row.id) || !equal(mine, settingsOf(known)))) {
      settings[row.id] = mine;
      saved[row.id] = known;
    } else if (!known && kept && !equal(kept.settings, settingsOf(row))) {
      settings[row.id] = kept.settings;
      saved[row.id] = { ...row, version: kept.version };
    } else {
      const newer = known && known.version > row.version ? known : row;
      settings[row.id] = settingsOf(newer);
      saved[row.id] = newer;
    }
  }
  return { settings, saved, conflicts: ledger.conflicts };
}

/** A save has arrived. `sent` is what was saved; what changed meanwhile stays to be saved. */
export function rowArrived<Kept extends Row, Settings>(
  { settings, saved, conflicts }: Ledger<Kept, Settings>,
  row: Kept,
  sent: Settings,
  settingsOf: (row: Kept) => Settings,
): Ledger<Kept, Settings> {
  const settled = equal(settings[row.id], sent) ? { ...settings, [row.id]: settingsOf(row) } : settings;
  return { settings: settled, saved: { ...saved, [row.id]: row }, conflicts };
}

/** The row set as the server has it, after it had refused what was sent. */
export function rowPutBack<Kept extends Row, Settings>(
  ledger: Ledger<Kept, Settings>,
  id: string,
  settingsOf: (row: Kept) => Settings,
): Ledger<Kept, Settings> {
  const saved = ledger.saved[id];
  return saved ? { ...ledger, settings: { ...ledger.settings, [id]: settingsOf(saved) } } : ledger;
}

/** Takes the other version as the one that changes are made on. */
export function conflictSettled<Kept extends Row, Settings>(
  { settings, saved, conflicts }: Ledger<Kept, Settings>,
  id: string,
): Ledger<Kept, Settings> {
  const { [id]: theirs, ...others } = conflicts;
  return theirs ? { settings, saved: { ...saved, [id]: theirs }, conflicts: others } : { settings, saved, conflicts };
}

/** Rows that are set otherwise than the server has them. */
export function unsavedRows<Kept extends Row, Settings>(
  { settings, saved }: Ledger<Kept, Settings>,
  settingsOf: (row: Kept) => Settings,
): { row: Kept; settings: Settings }[] {
  return Object.values(saved).flatMap((row) => {
    const now = settings[row.id];
    return now && !equal(now, settingsOf(row)) ? [{ row, settings: now }] : [];
  });
}

/** Of two states of settings, those of the earlier one that the later one changed. */
export function changedSettings<Settings>(from: ById<Settings>, to: ById<Settings>): ById<Settings> {
  return Object.fromEntries(
    Object.keys(to).flatMap((id) => {
      const was = from[id];
      return was && was !== to[id] ? [[id, was] as const] : [];
    }),
  );
}
