import { planHash, readPlan } from '@inkwell/core/planning';
import pLimit from 'p-limit';
import pg from 'pg';
import type { Logger } from 'pino';
import { diskFull, isAboutRoom } from '../diskFull.ts';
import { listWorkspaces } from '../store/access/workspaces.ts';
import { removeUnneeded } from '../store/blobs/moving.ts';
import { ObjectsAway } from '../store/blobs/objects.ts';
import { claimWork } from '../store/claimWork.ts';
import type { Database } from '../store/database.ts';
import { clearUnused } from '../store/library/clearing.ts';
import { storedDelivery } from '../store/projects/deliveries.ts';
import { findFrame } from '../store/projects/frames.ts';
import { projectIds } from '../store/projects/projects.ts';
import type { WorkLane } from '../store/schema/index.ts';
import {
  addMeasuring,
  type ClaimedWork,
  dropUnwanted,
  failWork,
  finishWork,
  freeStranded,
  priorities,
  putBack,
  signOn,
  workChannel,
  workspacesWithFailures,
} from '../store/work.ts';
import { type Mailing, resumeMails, sendMail } from '../tasks/access/mailing.ts';
import { writeReset } from '../tasks/access/newPassword.ts';
import { makeCall } from '../tasks/calling/makeCall.ts';
import { resumeCalls } from '../tasks/calling/queueCalls.ts';
import { deliverPlan, leaveOutFailed } from '../tasks/delivering/deliverPlan.ts';
import { queueDelivery, resumeDeliveries } from '../tasks/delivering/queueDelivery.ts';
import { endFailedDryRuns, runDryRun, type Uploading } from '../tasks/dryRunning/runDryRun.ts';
import type { Later } from '../tasks/later.ts';
import { lookAt, queueUnseen } from '../tasks/library/lookingAt.ts';
import { queueProject } from '../tasks/plans/measuredFrames.ts';
import { type Keep, type Measures, measureMarks, measurePlan, measureWords } from '../tasks/plans/measurePlan.ts';
import { otherVersion } from '../tasks/plans/otherVersion.ts';
import { findSurvival } from '../tasks/surviving/findSurvival.ts';
import { UserError } from '../userError.ts';
import type { Workspaces, WorkspaceTools } from '../workspaces.ts';

export interface Tools extends Omit<Measures, 'db'>, Pick<Uploading, 'accounts'> {
  /** All rows of all workspaces. */
  whole: Database;
  workspaces: Workspaces;
  /** Whether it looks at pictures; another worker may. */
  isLooking: boolean;
  /** Hosts that webhooks may call beside this machine. */
  hookHosts: readonly string[];
  /** Null where mails stay on a page of the program. */
  mailing: Mailing | null;
  log: Logger;
}

/** To look at a picture takes several hundred megabytes: one at a time. */
const oneAtATime = 'analyse';

interface Lane {
  lane: WorkLane;
  least: number;
}

/**
 * So many pictures at a time. One more takes what somebody waits for, and what is short, so that it never waits for long. Uploading
 * and calling mostly wait for others: nothing waits behind them.
 */
const lanesFor = (jobs: number): Lane[] => [
  ...Array.from({ length: jobs }, (): Lane => ({ lane: 'cores', least: priorities.measuring })),
  { lane: 'cores', least: priorities.putting },
  { lane: 'uploads', least: priorities.uploading },
  { lane: 'calls', least: priorities.calling },
];

export interface WorkerBounds {
  /** Pictures at a time. */
  jobs: number;
  /** So many pixels are in work at most, but for a single thing that takes more. */
  mostPixels: number;
}

/** When nobody has said that there is something to do, it is looked for this often: what was put off has no other voice. */
const idleMs = 1000;
const pauseMs = 500;
const strandedMs = 1000;
const clearMs = 3_600_000;
/** Work that needs bytes from a store that does not answer is taken up again after so long. */
const awayMs = 5000;

/** Thrown where somebody else has the work by now. */
class Lost extends Error {}

/**
 * Does the work that is kept in PostgreSQL, beside any number of other workers on any machine. That a worker is alive is known
 * from its connection alone: it holds a lock as long as that lives, so there is no sign of life to give, and no time after which
 * work counts as lost while it is still being done.
 */
export class Worker {
  private number: number | null = null;
  private connection: pg.Client | null = null;
  private connecting: Promise<void> | null = null;
  private stopped = false;
  private wake: () => void = () => undefined;
  private woken = new Promise<void>((resolve) => (this.wake = resolve));
  private readonly running: Promise<void>[];
  /** The work that is being done, by its id. */
  private readonly doing = new Map<number, ClaimedWork>();
  /** One lane claims at a time: two would each take the room that is left. */
  private readonly claiming = pLimit(1);
  private readonly timers: NodeJS.Timeout[];

  constructor(
    private readonly databaseUrl: string,
    private readonly tools: Tools,
    private readonly bounds: WorkerBounds,
  ) {
    this.running = lanesFor(bounds.jobs).map((lane) => this.lane(lane));
    this.timers = [
      this.every(strandedMs, async () => {
        if ((await freeStranded(tools.whole)) > 0) this.wakeAll();
        for (const id of await workspacesWithFailures(tools.whole)) {
          const { db } = tools.workspaces.at(id);
          await leaveOutFailed(db);
          await endFailedDryRuns(db);
        }
      }),
      this.every(clearMs, async () => {
        const gone = await clearUnused(tools.whole);
        if (gone.length > 0) tools.log.info({ gone }, 'cleared away');
        await removeUnneeded(tools.whole);
      }),
    ];
  }

  /** Ends after what is being done; what is not done in `graceMs` is left to others. */
  async stop(graceMs = 5000): Promise<void> {
    this.stopped = true;
    for (const timer of this.timers) clearInterval(timer);
    this.wakeAll();
    let grace: NodeJS.Timeout | undefined;
    const over = new Promise((resolve) => {
      grace = setTimeout(resolve, graceMs);
    });
    await Promise.race([Promise.all(this.running), over]);
    clearTimeout(grace);
    await this.leaveToOthers();
    this.number = null;
    await this.connection?.end().catch(() => undefined);
  }

  /** What is not done when a worker is told to stop has not failed: it does not count as an attempt. */
  private async leaveToOthers(): Promise<void> {
    const { number } = this;
    if (number === null) return;
    for (const id of this.doing.keys()) {
      await putBack(this.tools.whole, id, number).catch((error: unknown) =>
        this.tools.log.error({ error, id }, 'work was not put back; it is taken up all the same'),
      );
    }
  }

  private async lane(lane: Lane): Promise<void> {
    while (!this.stopped) {
      try {
        if (!this.connection) await this.connectOnce();
        const { number } = this;
        const heard = this.woken;
        const claimed = number === null ? null : await this.claim(number, lane);
        if (claimed && number !== null) await this.do(claimed, number);
        else await Promise.race([heard, pause(idleMs)]);
      } catch (error) {
        if (!this.stopped) this.tools.log.error({ error }, 'the worker could not go on; it tries again');
        await pause(pauseMs);
      }
    }
  }

  /** Claims what there is to do. What is claimed counts as being done at once. */
  private claim(number: number, { lane, least }: Lane): Promise<ClaimedWork | null> {
    return this.claiming(async () => {
      if (this.stopped) return null;
      const all = [...this.doing.values()];
      const mayLook = this.tools.isLooking && !all.some(({ task }) => task.kind === oneAtATime);
      const inWork = this.pixelsInWork;
      const room = inWork === 0 ? null : Math.max(0, this.bounds.mostPixels - inWork);
      const claimed = await claimWork(this.tools.whole, number, { lane, least, mayLook, room });
      if (claimed) this.doing.set(claimed.id, claimed);
      return claimed;
    });
  }

  get mostPixels(): number {
    return this.bounds.mostPixels;
  }

  /** About how many pixels lie in memory for what is being done. */
  get pixelsInWork(): number {
    return [...this.doing.values()].reduce((sum, { pixels }) => sum + pixels, 0);
  }

  /** Whether it is connected, so that it finds what there is to do. */
  get isAtWork(): boolean {
    return this.number !== null;
  }

  /** The lanes share one connection, whichever of them finds it missing first. */
  private connectOnce(): Promise<void> {
    this.connecting ??= this.connect().finally(() => {
      this.connecting = null;
    });
    return this.connecting;
  }

  /** Signs on anew: what an earlier connection had claimed is free for others. */
  private async connect(): Promise<void> {
    const connection = new pg.Client({ connectionString: this.databaseUrl, keepAlive: true });
    const lost = () => {
      if (this.connection !== connection) return;
      this.connection = null;
      this.number = null;
    };
    connection.on('error', lost);
    connection.on('end', lost);
    connection.on('notification', () => this.wakeAll());
    await connection.connect();
    const number = await signOn(connection);
    await connection.query(`listen ${workChannel}`);
    this.connection = connection;
    this.number = number;
    const { whole, workspaces } = this.tools;
    await resumeMails(whole);
    for (const { id } of await listWorkspaces(whole)) await this.resume(workspaces.at(id));
    this.wakeAll();
  }

  /** Asks for all that is to be done in a workspace, whatever has become of the work that was asked for. */
  private async resume({ db }: WorkspaceTools): Promise<void> {
    await resumeDeliveries(db);
    await resumeCalls(db);
    if (this.tools.isLooking) await queueUnseen(db);
    // What has been changed without anybody measuring it, by another version of the program for one.
    await addMeasuring(db, await projectIds(db));
  }

  /** Where work is done: in its workspace, or at the door. */
  private dbOf({ workspaceId, askedBy }: ClaimedWork): Database {
    return workspaceId === null ? this.tools.whole : this.tools.workspaces.at(workspaceId, askedBy).db;
  }

  private async do(claimed: ClaimedWork, number: number): Promise<void> {
    const { log } = this.tools;
    const db = this.dbOf(claimed);
    try {
      const keep = await this.perform(claimed);
      if (keep === 'unwanted') {
        await dropUnwanted(db, claimed, number);
        return;
      }
      if (!keep) {
        await this.askAgain(claimed, number);
        return;
      }
      if ('laterMs' in keep) {
        await putBack(db, claimed.id, number, keep.laterMs);
        return;
      }
      await db.transaction(async (tx) => {
        if (!(await finishWork(tx, claimed.id, number))) throw new Lost();
        await keep(tx);
      });
    } catch (error) {
      if (error instanceof Lost) return;
      if (error instanceof ObjectsAway) {
        log.warn({ error: error.cause, key: claimed.key }, error.message);
        await this.saying(number, () => putBack(db, claimed.id, number, awayMs));
        return;
      }
      const isRefused = error instanceof UserError;
      if (!isRefused) log.error({ error, key: claimed.key }, 'work failed');
      await this.saying(number, () => failWork(db, claimed, number, wordsOf(error), isRefused));
    } finally {
      this.doing.delete(claimed.id);
      this.wakeAll();
    }
  }

  /** Says something to the database, until it has heard it or somebody else has the work anyway. */
  private async saying(number: number, say: () => Promise<void>): Promise<void> {
    while (this.number === number) {
      try {
        await say();
        return;
      } catch (error) {
        this.tools.log.error({ error }, 'the database does not answer');
        await pause(pauseMs);
      }
    }
  }

  private async perform({
    task,
    wantedBy,
    workspaceId,
    askedBy,
  }: ClaimedWork): Promise<Keep | Later | null | 'unwanted'> {
    const { whole, mailing } = this.tools;
    if (task.kind === 'mail') return sendMail(whole, task.mailId, mailing);
    if (task.kind === 'forgotten') return writeReset(whole, task, mailing);
    if (workspaceId === null) throw new Error(`Work of the kind ${task.kind} is of a workspace.`);
    const tools = { ...this.tools, ...this.tools.workspaces.at(workspaceId, askedBy) };
    const { db } = tools;
    if (task.kind === 'measure') return askForAll(tools, task.projectId);
    if (task.kind === 'deliver') return deliverPlan(db, task);
    if (task.kind === 'dry run') return runDryRun(tools, task);
    if (task.kind === 'call') return makeCall(db, task, tools.hookHosts);
    if (task.kind === 'analyse') return lookAt(tools, task.picture);
    if (task.kind === 'survival') return findSurvival(tools, task);
    const plan = readPlan(task.plan);
    if (!plan) throw new UserError(otherVersion);
    if (wantedBy && !(await isWanted(tools, wantedBy, planHash(plan)))) return 'unwanted';
    if (task.kind === 'legibility') return measureWords(tools, { ...task, plan });
    return task.kind === 'plan' ? measurePlan(tools, { ...task, plan }) : measureMarks(tools, { ...task, plan });
  }

  /** The files of a delivery are not there, or not any more: they are asked for again, and this comes after them. */
  private async askAgain(claimed: ClaimedWork, number: number): Promise<void> {
    const { id, task } = claimed;
    await this.dbOf(claimed).transaction(async (tx) => {
      await putBack(tx, id, number);
      const stored = task.kind === 'deliver' ? await storedDelivery(tx, task.deliveryId) : null;
      if (stored) await queueDelivery(tx, stored);
    });
  }

  private wakeAll(): void {
    const wake = this.wake;
    this.woken = new Promise<void>((resolve) => (this.wake = resolve));
    wake();
  }

  private every(ms: number, task: () => Promise<void>): NodeJS.Timeout {
    return setInterval(() => {
      if (this.number === null) return;
      task().catch((error: unknown) => this.tools.log.error({ error }, 'regular task'));
    }, ms);
  }
}

/** Asks for what is not known of a project's frames. That it was asked for twice, where it was, does no harm. */
async function askForAll({ db, planner }: WorkspaceTools, projectId: string): Promise<Keep> {
  await queueProject(db, planner, projectId);
  return async () => undefined;
}

/** Whether any of some frames is still set as it was when this was asked for. */
async function isWanted({ db, planner }: WorkspaceTools, frameIds: readonly string[], hash: string): Promise<boolean> {
  const planning = await planner.open();
  for (const id of new Set(frameIds)) {
    const framed = await findFrame(db, id);
    if (framed && planning.measuringOf(framed)?.planned.planHash === hash) return true;
  }
  return false;
}

const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

function wordsOf(error: unknown): string {
  if (error instanceof UserError) return error.message;
  if (isAboutRoom(error)) return diskFull().message;
  return 'Something went wrong in the program; the log says what.';
}
