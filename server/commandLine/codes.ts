import { UserError } from '../userError.ts';

/** What a command ends with: all is done and right; it was called wrongly; something is wrong with what it was given, or was left out. */
export const codes = { right: 0, misuse: 1, wrong: 2 } as const;
export type Code = (typeof codes)[keyof typeof codes];

/** A command that was called wrongly. The message says what is allowed. */
export class Misuse extends Error {}

/** Runs a command to its end. What was wrong is said in a sentence, never by a stack. */
export async function ended(task: () => Promise<Code>): Promise<void> {
  try {
    process.exitCode = await task();
  } catch (error) {
    const isMisuse = error instanceof Misuse || (error instanceof UserError && error.status === 404);
    if (!isMisuse && !(error instanceof UserError)) throw error;
    console.error(error.message);
    process.exitCode = isMisuse ? codes.misuse : codes.wrong;
  }
}
