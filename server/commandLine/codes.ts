/** What a command ends with: all is done and right; it was called wrongly; something is wrong with what it was given, or was left out. */
export const codes = { right: 0, misuse: 1, wrong: 2 } as const;
export type Code = (typeof codes)[keyof typeof codes];

/** A command that was called wrongly. The message says what is allowed. */
export class Misuse extends Error {}
