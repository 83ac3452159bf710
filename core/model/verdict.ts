import { z } from 'zod';

/** What somebody has said of a frame while looking all of them over. */
export const verdicts = ['fine', 'look again', 'leave out'] as const;

/** A verdict, and the hash of the plan that it was given on: of another plan, only that a frame is left out still counts. */
export const VerdictSchema = z.object({ is: z.enum(verdicts), plan: z.string().max(100) });
export type Verdict = z.infer<typeof VerdictSchema>;
export type VerdictWord = Verdict['is'];

/** Whether a frame is kept out of deliveries. */
export const isLeftOut = ({ verdict }: { verdict: Verdict | null }): boolean => verdict?.is === 'leave out';

/**
 * The verdict that counts of a frame as it is now.
 *
 * @param plan the hash of its plan; null while it is not known
 */
export function countingVerdict({ verdict }: { verdict: Verdict | null }, plan: string | null): VerdictWord | null {
  if (!verdict) return null;
  return verdict.is === 'leave out' || plan === null || verdict.plan === plan ? verdict.is : null;
}
