import { readdirSync, readFileSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { databaseServer, dropDatabase, ownDatabase } from '@inkwell/server/testing/databases.ts';
import type { Client } from '@inkwell/server/testing/programs/client.ts';
import { startProcesses } from '@inkwell/server/testing/programs/processes.ts';

/** The real program as processes of its own, with an empty database and empty caches, and what memory they hold. */
export class Program {
  private most = 0;
  private mostOfWorker = 0;
  private readonly watching: NodeJS.Timeout;

  private constructor(
    private readonly processes: Awaited<ReturnType<typeof startProcesses>>,
    private readonly folder: string,
    private readonly database: string,
  ) {
    this.watching = setInterval(() => this.look(), 100);
  }

  /** @param look whether pictures are looked at as well; what is measured of other work leaves that out */
  static async start(look: 'on' | 'off' = 'off'): Promise<Program> {
    const folder = await mkdtemp(join(tmpdir(), 'inkwell-bench-'));
    const database = await ownDatabase(databaseServer(), 'inkwell_bench');
    const env = { ...process.env, DATABASE_URL: database, INKWELL_DATA: folder, PORT: '4690', INKWELL_LOOK: look };
    return new Program(await startProcesses(env), folder, database);
  }

  get client(): Client {
    return this.processes.client;
  }

  async stop(): Promise<void> {
    clearInterval(this.watching);
    await this.processes.stop();
    await dropDatabase(this.database);
    await rm(this.folder, { recursive: true, force: true });
  }

  /** The most memory that all processes have held together at any time, in MB of 1,000,000 bytes. */
  peakMegabytes(): number {
    this.look();
    return this.most;
  }

  /** The same of the worker alone, which renders. */
  peakWorkerMegabytes(): number {
    this.look();
    return this.mostOfWorker;
  }

  /** What all processes hold now, in MB of 1,000,000 bytes. */
  megabytes(): number {
    const { server, worker } = this.processes;
    return memoryOf([server.pid, worker.pid]) / 1e6;
  }

  private look(): void {
    this.most = Math.max(this.most, this.megabytes());
    this.mostOfWorker = Math.max(this.mostOfWorker, memoryOf([this.processes.worker.pid]) / 1e6);
  }
}

/** Bytes that some processes and those that they have started hold now. */
export function memoryOf(pids: readonly number[]): number {
  let sum = 0;
  for (const name of readdirSync('/proc')) {
    if (!/^\d+$/.test(name)) continue;
    try {
      const status = readFileSync(`/proc/${name}/status`, 'utf8');
      const parent = Number(/^PPid:\s+(\d+)/m.exec(status)?.[1]);
      if (!pids.includes(Number(name)) && !pids.includes(parent)) continue;
      sum += Number(/^VmRSS:\s+(\d+) kB/m.exec(status)?.[1] ?? 0) * 1024;
    } catch (error) {
      // It has ended meanwhile.
      if (!['ENOENT', 'ESRCH'].includes((error as NodeJS.ErrnoException).code ?? '')) throw error;
    }
  }
  return sum;
}
