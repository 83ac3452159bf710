/** The error codes of an error and of what caused it: a query's error is wrapped with the query. */
function codesOf(error: unknown): string[] {
  if (!(error instanceof Error)) return [];
  const own = 'code' in error && typeof error.code === 'string' ? [error.code] : [];
  return [...own, ...codesOf(error.cause), ...(error instanceof AggregateError ? error.errors.flatMap(codesOf) : [])];
}

/** No connection, or one that is being closed (PostgreSQL, appendix A: classes 08 and 57P, 53300), or none to be had. */
const away = /^(08\w{3}|57P0[1-5]|53300|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT)$/;
const awayWords =
  /connection terminated|timeout exceeded when trying to connect|cannot use a pool after|client has encountered a connection error|connection ended/i;

const saysAway = (error: unknown): boolean =>
  error instanceof Error && (awayWords.test(error.message) || saysAway(error.cause));

/** What ends a connection for reasons of the database's own: resources, system, internal (classes 53, 58, XX). A full disk may be one. */
const ended = /^(53|58|XX)/;

/** Whether PostgreSQL has ended a connection, or taken none, because it could not go on itself. */
const hasEnded = (error: unknown): boolean =>
  error instanceof Error &&
  (('severity' in error && error.severity === 'FATAL' && codesOf(error).some((code) => ended.test(code))) ||
    hasEnded(error.cause));

/** Whether an error means that the database cannot be reached. */
export const isDatabaseAway = (error: unknown): boolean =>
  saysAway(error) || hasEnded(error) || codesOf(error).some((code) => away.test(code));

/** Whether there is a database that takes no connections yet: it starts, or recovers from a crash. */
export const isStarting = (error: unknown): boolean => codesOf(error).includes('57P03');

/** Whether the database refused what a request has asked to be stored: out of range, unreadable, or naming what is not there. */
export const isUnfit = (error: unknown): boolean =>
  codesOf(error).some((code) => ['22003', '22021', '22P02', '22P05', '23503', '54000'].includes(code));
