import { UserError } from '../../../userError.ts';

/** The refusal for a file that is of a known kind but cannot be read to its end. */
export function damaged(format: string, error: unknown): UserError {
  const refusal = new UserError(
    `This ${format.toUpperCase()} file is cut off or damaged. Copy or export it again from where it came, and choose the new copy.`,
  );
  refusal.cause = error;
  return refusal;
}
