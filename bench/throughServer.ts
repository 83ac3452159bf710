import { openAsBlob, readdirSync, readFileSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { plainTreatment } from '@inkwell/core/finishing';
import { insideSpan, upright } from '@inkwell/core/geometry';
import { FrameSchema, keepNothing, OpenProjectSchema, type Original, OriginalSchema } from '@inkwell/core/model';
import { planFrame, planHash } from '@inkwell/core/planning';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import { startProcesses } from '@inkwell/server/testing/processes.ts';

/** The real program as a process of its own, with empty caches. */
export class Program {
  private most = 0;
  private mostOfWorker = 0;
  private readonly watching: NodeJS.Timeout;

  private constructor(
    private readonly processes: Awaited<ReturnType<typeof startProcesses>>,
    private readonly folder: string,
  ) {
    this.watching = setInterval(() => this.look(), 100);
  }

  static async start(): Promise<Program> {
    const folder = await mkdtemp(join(tmpdir(), 'inkwell-bench-'));
    return new Program(await startProcesses({ ...process.env, INKWELL_DATA: folder, PORT: '4690' }), folder);
  }

  get address(): string {
    return this.processes.address;
  }

  async stop(): Promise<void> {
    clearInterval(this.watching);
    await this.processes.stop();
    await rm(this.folder, { recursive: true, force: true });
  }

  async ask(method: string, path: string, body?: unknown): Promise<unknown> {
    const response = await fetch(`${this.address}/api${path}`, {
      method,
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    });
    return response.json();
  }

  async upload(path: string): Promise<Original> {
    const form = new FormData();
    form.append('file', await openAsBlob(path), basename(path));
    const response = await fetch(`${this.address}/api/originals`, { method: 'POST', body: form });
    return OriginalSchema.parse(await response.json());
  }

  async fetchBytes(path: string): Promise<number> {
    return (await (await fetch(`${this.address}/api${path}`)).arrayBuffer()).byteLength;
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
function memoryOf(pids: readonly number[]): number {
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

/** A picture uploaded and put into one frame of 1080 × 1350. */
async function oneFrame(program: Program, picture: string) {
  const original = await program.upload(picture);
  const place = shippedPlaces().get('sunpane/portrait-post')?.place;
  if (!place || typeof place.height !== 'number') throw new Error('The spec book lacks the place that is measured.');
  const { id } = OpenProjectSchema.parse(await program.ask('POST', '/projects', { name: 'Bench' }));
  await program.ask('POST', `/projects/${id}/originals`, { add: [original.id] });
  const add = [{ originalId: original.id, placeId: 'sunpane/portrait-post' }];
  const project = OpenProjectSchema.parse(await program.ask('POST', `/projects/${id}/frames`, { add }));
  const [frame] = project.frames;
  if (!frame) throw new Error('The frame was not made.');
  const hash = planHash(
    planFrame({ treatment: plainTreatment, keeping: keepNothing, original, place, settings: frame }),
  );
  return { original, place, output: { width: place.width, height: place.height }, frame, hash };
}

/** Milliseconds from a window's change to its proof in hand: save, then proof, over HTTP. */
export async function proofTimes(program: Program, picture: string, changes: number): Promise<number[]> {
  const { original, place, output, frame } = await oneFrame(program, picture);
  const times: number[] = [];
  for (let change = 0; change < changes; change += 1) {
    const span = insideSpan(original, output) * (0.35 + 0.65 * ((change * 0.618) % 1));
    const window = {
      centreX: original.width * ((change * 0.377) % 1),
      centreY: original.height * ((change * 0.733) % 1),
      span,
      ...upright,
    };
    const began = performance.now();
    const saved = FrameSchema.parse(
      await program.ask('PATCH', `/frames/${frame.id}`, { version: change + 1, change: { window, composed: false } }),
    );
    const hash = planHash(
      planFrame({ treatment: plainTreatment, keeping: keepNothing, original, place, settings: saved }),
    );
    const bytes = await program.fetchBytes(`/frames/${frame.id}/proof?plan=${hash}&width=448`);
    times.push(performance.now() - began);
    if (bytes < 2000) throw new Error('That was no proof.');
  }
  return times;
}

export interface TrialTimes {
  /** Milliseconds until the true bytes of an encoding are there: of the first, of one not tried before, of one that was. */
  first: number;
  fresh: number;
  again: number;
}

/** A hand drags the quality of a 1080 × 1350 file: over HTTP, forty qualities new and the same once more; medians. */
export async function trialTimes(program: Program, picture: string): Promise<TrialTimes> {
  const { original, frame, hash } = await oneFrame(program, picture);
  await program.fetchBytes(`/originals/${original.id}/preview?width=448`);
  const time = async (quality: number) => {
    const began = performance.now();
    await program.ask('GET', `/frames/${frame.id}/trial?plan=${hash}&format=jpeg&quality=${quality}&similarity=no`);
    return performance.now() - began;
  };
  const first = await time(95);
  const qualities = Array.from({ length: 40 }, (_, at) => 90 - at);
  const all = { fresh: [] as number[], again: [] as number[] };
  for (const quality of qualities) all.fresh.push(await time(quality));
  for (const quality of qualities) all.again.push(await time(quality));
  const middle = (times: number[]) => [...times].sort((a, b) => a - b)[times.length >> 1] ?? Number.NaN;
  return { first, fresh: middle(all.fresh), again: middle(all.again) };
}
