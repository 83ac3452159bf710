/** Something that came in and cannot be taken. The message is a plain sentence for the person: what, why, what to do. */
export class UserError extends Error {
  constructor(
    message: string,
    /** HTTP status. */
    readonly status: 400 | 401 | 403 | 404 | 409 | 413 | 415 | 422 | 429 | 503 | 507 = 422,
    /** What helps the interface, such as the other person's values. */
    readonly details?: Record<string, unknown>,
  ) {
    super(message);
  }
}

export function notFound(what: string): UserError {
  return new UserError(`${what} is not there any more. Go back and reload.`, 404);
}

/** What was found, or the refusal that says it is not there. */
export function orNotFound<Value>(value: Value | null | undefined | false, what: string): Value {
  if (value === null || value === undefined || value === false) throw notFound(what);
  return value;
}
