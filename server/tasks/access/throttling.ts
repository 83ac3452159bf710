import type pg from 'pg';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Queryable } from '../../store/database.ts';
import { UserError } from '../../userError.ts';
import { type Asker, note } from './asker.ts';
import { secretHash } from './linkSecrets.ts';

const minute = 60;
const hour = 60 * minute;

/** So many attempts in so many seconds. */
const limits = {
  /** From one address: a studio behind one line has several people. */
  address: { points: 50, duration: 15 * minute },
  /** For one account from one address. */
  both: { points: 8, duration: 15 * minute },
  /** For one account from anywhere: who is tried by many machines still gets in after a while. */
  account: { points: 60, duration: hour },
} as const;

/**
 * Counts attempts to get in, in the database: all servers count together, and a restart forgets nothing. An attempt counts before it is
 * looked at, so that many at once are no more than one after the other.
 */
export class Throttling {
  private readonly limiters: Record<keyof typeof limits, RateLimiterPostgres>;

  constructor(
    private readonly db: Queryable,
    pool: pg.Pool,
  ) {
    const limiter = (name: keyof typeof limits) =>
      new RateLimiterPostgres({
        storeClient: pool,
        tableName: 'throttles',
        tableCreated: true,
        keyPrefix: name,
        ...limits[name],
      });
    this.limiters = { address: limiter('address'), both: limiter('both'), account: limiter('account') };
  }

  /**
   * Counts an attempt for an account, which need not exist. Of those that are too many, the first is noted.
   *
   * @returns takes the attempt back, where it turns out to be of the person's own
   * @throws UserError where there were too many
   */
  async attempt(account: string, asker: Asker): Promise<() => Promise<void>> {
    const address = asker.address ?? '';
    // Neither is kept as it is.
    const keys = {
      address: secretHash(address),
      both: secretHash(`${account} ${address}`),
      account: secretHash(account),
    };
    for (const name of ['address', 'both', 'account'] as const) {
      await this.limiters[name].consume(keys[name]).catch(async (refused: unknown) => {
        if (!(refused instanceof RateLimiterRes)) throw refused;
        if (refused.consumedPoints === limits[name].points + 1) await note(this.db, asker, 'held up');
        throw tooMany(refused);
      });
    }
    // Only this one: whoever knows the password alone would otherwise have as many tries at the code as they like.
    return async () => {
      for (const name of ['address', 'both', 'account'] as const) await this.limiters[name].reward(keys[name]);
    };
  }
}

function tooMany({ msBeforeNext }: RateLimiterRes): UserError {
  const minutes = Math.max(1, Math.ceil(msBeforeNext / 60_000));
  return new UserError(
    `There were too many attempts. Wait ${minutes === 1 ? 'a minute' : `${minutes} minutes`}, then try again.`,
    429,
    { retryAfterSeconds: Math.ceil(msBeforeNext / 1000) },
  );
}
