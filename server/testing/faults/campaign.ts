import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MadeInvitationSchema } from '@inkwell/core/model';
import pg from 'pg';
import { z } from 'zod';
import { openDatabase } from '../../store/database.ts';
import { firstLink } from '../../tasks/access/invitations.ts';
import { type Cluster, freePort } from '../cluster.ts';
import { Browser } from '../programs/browser.ts';
import { until } from '../programs/client.ts';
import { ServerProcess, WorkerProcess } from '../programs/processes.ts';
import { FaultsPerson } from './person.ts';
import { childrenOf, isThere, kill } from './victims.ts';

export const victims = ['server', 'worker', 'decoder', 'backend', 'postmaster'] as const;
export type Victim = (typeof victims)[number];

const password = 'quilted lantern over marsh';
const emailOf = (index: number) => `person${index}@saltmarsh.example`;
const names = ['Runa Holm', 'Ida Berg', 'Odd Lien', 'Mira Vik', 'Tore Moe'];

/**
 * The whole program with five people in two workspaces, all of whom are at work, on a cluster of its own: what of it fails is started again
 * at once, as whatever runs it would do.
 */
export class Campaign {
  readonly people: FaultsPerson[] = [];
  private workers: WorkerProcess[] = [];
  private isOver = false;
  private working: Promise<void>[] = [];

  private constructor(
    readonly cluster: Cluster,
    private readonly env: NodeJS.ProcessEnv,
    private readonly folder: string,
    private server: ServerProcess,
  ) {}

  /** @param env what the program is told beside that */
  static async start(cluster: Cluster, env: NodeJS.ProcessEnv = {}): Promise<Campaign> {
    const folder = await mkdtemp(join(tmpdir(), 'inkwell-faults-'));
    const all = {
      ...process.env,
      INKWELL_LOOK: 'off',
      INKWELL_ACCOUNTS: 'on',
      INKWELL_DATA: folder,
      PORT: String(await freePort()),
      ...env,
      DATABASE_URL: cluster.url,
    };
    const campaign = new Campaign(cluster, all, folder, await ServerProcess.start(all));
    campaign.workers = [await WorkerProcess.start(all), await WorkerProcess.start(all)];
    await campaign.bringPeople();
    return campaign;
  }

  /** Two workspaces: three people in the one, two in the other. */
  private async bringPeople(): Promise<void> {
    const { address } = this.server;
    const { whole, close } = await openDatabase(this.cluster.url);
    const link = z.string().parse(await firstLink(whole, address));
    await close();
    const owner = new Browser(address);
    const { workspaceId: first } = await owner.accept(link, names[0] ?? '', password, emailOf(0));
    const made = await owner.ask('POST', '/workspaces', { name: 'Dunes' });
    const { workspaceId: second } = z.object({ workspaceId: z.string() }).parse(made.body);
    for (const [index, name] of names.entries()) {
      const workspaceId = z.string().parse(index < 3 ? first : second);
      const browser = index === 0 ? owner : new Browser(address);
      if (index > 0) {
        const asked = { email: emailOf(index), role: 'editor' };
        const { body } = await owner.ask('POST', `/in/${workspaceId}/invitations`, asked);
        await browser.accept(MadeInvitationSchema.parse(body).link, name, password);
      }
      this.people.push(new FaultsPerson(browser, name, emailOf(index), password, workspaceId, index + 1));
    }
  }

  /** Lets all people work, until `rest`. */
  begin(): void {
    this.isOver = false;
    this.working = this.people.map((person) => person.work(() => this.isOver));
  }

  async rest(): Promise<void> {
    this.isOver = true;
    await Promise.all(this.working);
  }

  /** How many things were answered with success. */
  get answered(): number {
    return this.people.reduce((sum, { counts }) => sum + counts.answered, 0);
  }

  /** @throws where the program has ended, which nobody has told it to */
  async untilAnswered(many: number): Promise<void> {
    await until(
      async () => {
        if (![this.server, ...this.workers].every(({ isRunning }) => isRunning))
          throw new Error('A process has ended by itself.');
        return this.answered;
      },
      (answered) => answered >= many,
      300,
    );
  }

  /** Kills one part of the program, and starts it again. @returns whether there was one to kill @throws where it does not start */
  async strike(victim: Victim): Promise<boolean> {
    if (victim === 'decoder') return kill(childrenOf(this.server.pid, /decodingProcess/)[0]);
    if (victim === 'backend' || victim === 'postmaster') return this.strikeDatabase(victim);
    if (victim === 'server') {
      await this.server.end('SIGKILL');
      await this.startServer();
      return true;
    }
    const [first, ...others] = this.workers;
    await first?.end('SIGKILL');
    this.workers = [...others, await WorkerProcess.start(this.env)];
    return first !== undefined;
  }

  private async strikeDatabase(victim: 'backend' | 'postmaster'): Promise<boolean> {
    const postmaster = await this.cluster.postmaster();
    if (victim === 'backend') {
      // PostgreSQL ends all others as well, and recovers.
      const backends = childrenOf(postmaster, /^postgres: inkwell /);
      return kill(backends[Math.floor(backends.length / 2)]);
    }
    const children = childrenOf(postmaster, /./);
    const isKilled = kill(postmaster);
    // What it has started ends by itself, and holds its memory until then.
    await until(
      async () => children.some(isThere),
      (areLeft) => !areLeft,
    );
    this.cluster.start();
    return isKilled;
  }

  private async startServer(): Promise<void> {
    this.server = await ServerProcess.start(this.env);
    for (const person of this.people) person.moveTo(this.server.address);
  }

  /** The processes of the program: the server first. */
  get pids(): number[] {
    return [this.server.pid, ...this.workers.map(({ pid }) => pid)];
  }

  /** Where half-arrived files and caches lie. */
  get dataFolder(): string {
    return this.folder;
  }

  /** Waits until everything answers and is done, and looks whether anything is lost. @returns all that is wrong */
  async verify(): Promise<string[]> {
    await until(
      () =>
        fetch(`${this.server.address}/ready`).then(
          ({ ok }) => ok,
          () => false,
        ),
      (isReady) => isReady,
    );
    for (const person of this.people) await person.verify();
    const left = await this.workLeft();
    return [...this.people.flatMap(({ wrongs }) => wrongs), ...left];
  }

  /** Waits as long as there is less and less to do. @returns what has failed @throws where something stays */
  private async workLeft(): Promise<string[]> {
    const client = new pg.Client({ connectionString: this.cluster.url });
    await client.connect();
    const read = async () => {
      const { rows } = await client.query<{ key: string; state: string; failure: string }>(
        'select key, state, failure from work',
      );
      return rows;
    };
    const undone = (rows: Awaited<ReturnType<typeof read>>) => rows.filter(({ state }) => state !== 'failed').length;
    try {
      let left = Number.POSITIVE_INFINITY;
      for (;;) {
        const rows = await until(read, (all) => undone(all) < left, 300);
        left = undone(rows);
        if (left === 0) return rows.map(({ key, failure }) => `${key} failed: ${failure}`);
      }
    } finally {
      await client.end();
    }
  }

  async end(): Promise<void> {
    await this.rest();
    await Promise.all([this.server, ...this.workers].map((one) => one.end()));
    await rm(this.folder, { recursive: true, force: true });
  }
}
