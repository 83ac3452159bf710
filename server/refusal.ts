/** Something that came in and cannot be taken. The message is a plain sentence for the person: what, why, what to do. */
export class Refusal extends Error {
  constructor(
    message: string,
    /** HTTP status. */
    readonly status: 400 | 403 | 404 | 409 | 413 | 415 | 422 | 503 | 507 = 422,
    /** What helps the interface, such as the other person's values. */
    readonly details?: Record<string, unknown>,
  ) {
    super(message);
  }
}
