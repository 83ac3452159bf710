import { shareWords } from '@inkwell/core/model';
import { exceeded, type UsedUp } from '../../store/access/shares.ts';
import type { Queryable } from '../../store/database.ts';
import { UserError } from '../../userError.ts';

const ways = {
  bytes: 'Delete what is not needed any more, which is cleared away after seven days',
  pixels: 'Wait until some of it is done',
  jobs: 'Wait until some are done',
  uploads: 'Go on later',
  requests: 'Go on later',
} as const;

/** That a share is used up, in words. @param afterSeconds when it goes on, where that is known */
export function usedUpError({ kind, isOfAll, share, used }: UsedUp, afterSeconds: number | null = null): UserError {
  const { said, amount } = shareWords[kind];
  const whose = isOfAll ? 'The share of this workspace' : 'Your share in this workspace';
  const would = afterSeconds === null ? `this would make it ${amount(used)}` : 'that is used up';
  const way = afterSeconds === null ? ways[kind] : `Go on ${inWords(afterSeconds)}`;
  const more = isOfAll ? 'whoever looks after the program can make it larger' : 'an owner can make it larger';
  return new UserError(
    `${whose} is ${said(share)}, and ${would}. ${way}; ${more}.`,
    kind === 'bytes' ? 413 : 429,
    afterSeconds === null ? {} : { retryAfterSeconds: afterSeconds },
  );
}

function inWords(seconds: number): string {
  if (seconds <= 90) return `in ${seconds} ${seconds === 1 ? 'second' : 'seconds'}`;
  return `in ${Math.ceil(seconds / 60)} minutes`;
}

/** @throws UserError where what a transaction has added is more than a share. Run it last. @see exceeded */
export async function holdShares(db: Queryable, ...kinds: ('bytes' | 'jobs')[]): Promise<void> {
  const usedUp = await exceeded(db, kinds);
  if (usedUp) throw usedUpError(usedUp);
}
