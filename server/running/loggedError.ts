import { DrizzleQueryError } from 'drizzle-orm';
import pg from 'pg';

/** Where an error comes from, without its message, which may tell of what it was about. */
const placesOf = ({ stack = '' }: Error): string[] =>
  stack
    .split('\n')
    .filter((line) => line.startsWith('    at '))
    .map((line) => line.trim());

/**
 * What a log says of an error. The values that a statement was about are somebody's: of a statement that failed it says the statement
 * with its placeholders, and what the database calls the failure, never the values.
 */
export function loggedError(error: unknown): unknown {
  if (!(error instanceof Error)) return error;
  const { name, message, cause } = error;
  const code = 'code' in error ? { code: error.code } : {};
  const because = cause === undefined ? {} : { cause: loggedError(cause) };
  if (error instanceof DrizzleQueryError) return { name, query: error.query, ...because, stack: placesOf(error) };
  if (error instanceof pg.DatabaseError) {
    const { severity, table, column, constraint, routine } = error;
    return { name, ...code, severity, table, column, constraint, routine, stack: placesOf(error) };
  }
  return { name, ...code, message, ...because, stack: placesOf(error) };
}
