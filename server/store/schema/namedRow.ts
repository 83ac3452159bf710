import { getTableColumns } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';

/** A row as PostgreSQL writes it as JSON, by the names that the program has for its columns; what it has no name for is left out. */
export function namedRow(table: PgTable, row: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const keys = new Map(Object.entries(getTableColumns(table)).map(([key, { name }]) => [name, key]));
  return Object.fromEntries(
    Object.entries(row).flatMap(([name, value]) => {
      const key = keys.get(name);
      return key === undefined ? [] : [[key, value]];
    }),
  );
}
