import type { FrameChange } from '@inkwell/core/model';
import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import { inTwos } from '../inTwos.ts';

/** Work that takes longer than a request should: kept in PostgreSQL, done by any process that offers itself. */
export interface Queue {
  /**
   * Asks for what is to be measured of a frame, under its hash. Asking again while it waits adds nothing.
   *
   * @param change measures the frame as it would be with this
   */
  askMeasure(hash: string, frameId: string, change?: FrameChange): Promise<void>;
  /** Asks for the same before everything else: somebody is looking at this frame. */
  askMeasureFirst(hash: string, frameId: string): Promise<void>;
  askDelivery(deliveryId: string): Promise<void>;
  stop(): Promise<void>;
}

export interface Work {
  measure(frameId: string, change: FrameChange): Promise<void>;
  deliver(deliveryId: string): Promise<void>;
  /** Runs every few seconds. */
  lookAfter(): Promise<void>;
  /** Runs every hour. */
  clear(): Promise<void>;
}

const measuring = 'measure';
const delivering = 'deliver';
/** Two cores: two pictures at a time, and a few in hand so that no core waits for the next look into the queue. */
const measuredTogether = 4;
/** As if it had been asked for an hour from now. */
const aheadSeconds = 3600;
const lookAfterSeconds = 5;
const clearSeconds = 3600;

/** Opens the queue and starts to work it off. */
export async function openQueue(databaseUrl: string, work: Work, log: Logger): Promise<Queue> {
  const boss = new PgBoss({ connectionString: databaseUrl, max: 4, retryLimit: 2, retryDelay: 1, expireInMinutes: 10 });
  boss.on('error', (error) => log.error(error, 'queue'));
  await boss.start();
  for (const name of [measuring, delivering]) await boss.createQueue(name, { name, policy: 'short' });

  /** What fails is tried again by the queue, which keeps the reason to itself: it has to stand in the log. */
  const told = (task: Promise<void>, about: object) =>
    task.catch((error: unknown) => {
      log.error({ ...about, error }, 'work failed');
      throw error;
    });

  await boss.work<{ frameId: string; change?: FrameChange }>(
    measuring,
    { batchSize: measuredTogether, pollingIntervalSeconds: 0.5 },
    async (jobs) => {
      await inTwos(jobs, (job) => told(work.measure(job.data.frameId, job.data.change ?? {}), { measuring: job.data }));
    },
  );
  await boss.work<{ deliveryId: string }>(delivering, { pollingIntervalSeconds: 0.5 }, async (jobs) => {
    for (const job of jobs) await told(work.deliver(job.data.deliveryId), { delivering: job.data });
  });
  const ask = async (name: string, singletonKey: string, data: object, ahead = 0) => {
    // What was asked for last is done first: it is what somebody has turned to.
    const priority = Math.floor(Date.now() / 1000) + ahead;
    await boss.send(name, data, { singletonKey, priority });
  };
  const timers = [every(lookAfterSeconds, () => work.lookAfter(), log), every(clearSeconds, () => work.clear(), log)];
  return {
    askMeasure: (hash, frameId, change) => ask(measuring, hash, { frameId, ...(change ? { change } : {}) }),
    // Under a key of its own: what waits already cannot be moved forward, and what is known by then is not done again.
    askMeasureFirst: (hash, frameId) => ask(measuring, `first ${hash}`, { frameId }, aheadSeconds),
    askDelivery: (deliveryId) => ask(delivering, deliveryId, { deliveryId }),
    async stop() {
      for (const timer of timers) clearInterval(timer);
      await boss.stop({ graceful: true, timeout: 5000, wait: true });
    },
  };
}

function every(seconds: number, task: () => Promise<void>, log: Logger): NodeJS.Timeout {
  return setInterval(() => {
    task().catch((error: unknown) => log.error(error, 'regular task'));
  }, seconds * 1000);
}
