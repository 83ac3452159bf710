import type { Share, Use } from '@inkwell/core/model';
import { LRUCache } from 'lru-cache';
import type pg from 'pg';
import { RateLimiterMemory, RateLimiterPostgres, type RateLimiterRes } from 'rate-limiter-flexible';
import { shareOf } from '../../store/access/shares.ts';
import type { Database } from '../../store/database.ts';
import { usedUpError } from './refusing.ts';

const hour = 3600;
const minute = 60;
/** As much as a limiter counts; how much is allowed is looked up each time, since it can be changed. */
const uncounted = 2_000_000_000;
/** For so long a share is not looked up again, and so many are known. */
const known = { ttl: 1000, max: 5000 };

/**
 * Counts what comes. Uploads are counted in the database, so that all servers count together and a restart forgets nothing; requests where
 * they come, since to write down each would cost more than most of them do.
 */
export class Counting {
  private readonly uploads: RateLimiterPostgres;
  private readonly requests = new RateLimiterMemory({ points: uncounted, duration: minute });
  private readonly shares = new LRUCache<string, Share>(known);

  constructor(
    private readonly db: Database,
    pool: pg.Pool,
  ) {
    this.uploads = new RateLimiterPostgres({
      storeClient: pool,
      tableName: 'throttles',
      tableCreated: true,
      keyPrefix: 'uploads',
      points: uncounted,
      duration: hour,
    });
  }

  /**
   * Counts something that comes, for a workspace and for whoever asks there.
   *
   * @param personId null where there are no accounts
   * @throws UserError where it is more than one of their shares
   */
  async count(what: 'uploads' | 'requests', workspaceId: string, personId: string | null): Promise<void> {
    for (const of of personId === null ? [null] : [personId, null]) {
      const key = keyOf(workspaceId, of);
      const share = (await this.shareOf(workspaceId, of))[what];
      const { consumedPoints, msBeforeNext } = await this[what].consume(key);
      if (share === null || consumedPoints <= share) continue;
      // What is refused does not count: what is shown as used is never more than the share.
      await this[what].reward(key);
      const usedUp = { kind: what, isOfAll: of === null, share, used: share };
      throw usedUpError(usedUp, Math.max(1, Math.ceil(msBeforeNext / 1000)));
    }
  }

  /** How much of it was counted of late. */
  async counted(workspaceId: string, personId: string | null): Promise<Pick<Use, 'uploads' | 'requests'>> {
    const key = keyOf(workspaceId, personId);
    const pointsOf = (found: RateLimiterRes | null) => Math.max(0, found?.consumedPoints ?? 0);
    const [uploads, requests] = [await this.uploads.get(key), await this.requests.get(key)];
    return { uploads: pointsOf(uploads), requests: pointsOf(requests) };
  }

  /** Looks a share up anew: it was changed. Other servers do so within a second. */
  forget(workspaceId: string, personId: string | null): void {
    this.shares.delete(keyOf(workspaceId, personId));
  }

  private async shareOf(workspaceId: string, personId: string | null): Promise<Share> {
    const key = keyOf(workspaceId, personId);
    const found = this.shares.get(key);
    if (found) return found;
    const share = await shareOf(this.db, workspaceId, personId);
    this.shares.set(key, share);
    return share;
  }
}

const keyOf = (workspaceId: string, personId: string | null): string => `${workspaceId} ${personId ?? 'all'}`;
