import type { Queryable } from './database.ts';

/**
 * A query that is built once for a database instead of at each call, and planned once for each of its connections: with the many
 * columns of frames that takes longer than to answer it. A transaction builds it for itself.
 *
 * @param build ends with `.prepare(name)`; the name is of this query alone
 */
export function prepared<Query>(build: (db: Queryable) => Query): (db: Queryable) => Query {
  const built = new WeakMap<Queryable, Query>();
  return (db) => {
    const known = built.get(db) ?? build(db);
    built.set(db, known);
    return known;
  };
}
