import { type ChildProcess, fork } from 'node:child_process';
import { writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { LRUCache } from 'lru-cache';
import { loaderOf } from '../../../running/loader.ts';
import { UserError } from '../../../userError.ts';
import type { Decoded, DecodingTask } from '../decoding.ts';
import type { Answered, Asked } from './decodingProcess.ts';
import { useOf } from './processUse.ts';

/** What opening one file may take. */
export interface DecodingLimits {
  /** Bytes of the process's own memory. */
  memory: number;
  /** Seconds of processor time. */
  processor: number;
  /** The same for a drawing, which may ask for any amount of work in a few words. */
  drawing: number;
  /** Seconds by the clock, however busy the machine is. */
  clock: number;
}

/** What every picture that may be taken by its dimensions needs, with room to spare. */
export const decodingLimits: DecodingLimits = { memory: 2_000_000_000, processor: 120, drawing: 60, clock: 240 };

/** How a task stands among others. */
export interface Urgency {
  /** Comes before what waits: somebody is looking at a picture that has to be decoded again. */
  first?: boolean;
  /** Ends the task, with the process that works on it. */
  signal?: AbortSignal | undefined;
  /** Who waits for it: of tasks that are as urgent, those of different ones take turns. */
  waiter?: string;
}

/** So many files are opened at a time; of those that come first one more, so that they never wait for the others. */
const atOnce = 2;
const atOnceFirst = 3;
/** The niceness of processes that open what nobody looks at yet: behind what draws pictures for people. */
const patience = 19;
/** Drawings, once they are found to be such, leave their place to others. One is drawn at a time; so many may be begun. */
const mostDrawings = 4;
const watchMs = 100;
/** A process that has grown to this, in bytes, is not used again; nor one that has had nothing to do for so long. */
const grown = 400_000_000;
const idleMs = 60_000;

interface Waiting {
  task: DecodingTask;
  first: boolean;
  waiter: string;
  resolve: (result: unknown) => void;
  reject: (error: unknown) => void;
}

interface Decoder {
  child: ChildProcess;
  /** Whether it stands back behind what people look at. */
  isPatient: boolean;
  work: Waiting | null;
  /** When the work began, and how much processor time had been used by then. */
  began: number;
  processorBefore: number;
  isDrawing: boolean;
  /** A drawing that waits until the one before it is done. */
  isHeld: boolean;
  idleSince: number;
}

const script = new URL('./decodingProcess.ts', import.meta.url);

/**
 * Opens files from outside, each in a process of its own that holds nothing but that file: no connection to the database and
 * no other picture. Whatever a file makes a decoder do, the process is ended when it takes too much, and nothing else suffers.
 * Processes are kept for the next file, one of them always, so that a file does not wait for one to start.
 */
export class Decoders {
  private readonly decoders = new Set<Decoder>();
  private readonly waiting: Waiting[] = [];
  private number = 0;
  /** When each of those who wait had the last turn. */
  private readonly turns = new LRUCache<string, number>({ max: 1000 });
  private turn = 0;
  private watching: NodeJS.Timeout | null = null;
  private ended = false;

  constructor(private readonly limits: DecodingLimits = decodingLimits) {
    this.start();
  }

  /** Decodes a page into a folder and says what it is. @throws UserError in plain words, also where it takes too much */
  copy(
    task: Omit<Extract<DecodingTask, { kind: 'copy' }>, 'kind'>,
    urgency: Urgency = { first: true },
  ): Promise<Decoded> {
    return this.run({ kind: 'copy', ...task }, urgency) as Promise<Decoded>;
  }

  /** Draws a small JPEG of a page. @throws UserError as above */
  async preview(task: Omit<Extract<DecodingTask, { kind: 'preview' }>, 'kind'>, urgency: Urgency = {}): Promise<void> {
    await this.run({ kind: 'preview', ...task }, urgency);
  }

  /** The numbers of its processes. */
  pids(): number[] {
    return [...this.decoders].flatMap(({ child }) => child.pid ?? []);
  }

  /** Ends all processes at once. */
  end(): void {
    this.ended = true;
    for (const decoder of this.decoders) this.kill(decoder, new Error('The program is being stopped.'));
    for (const one of this.waiting.splice(0)) one.reject(new Error('The program is being stopped.'));
    if (this.watching) clearInterval(this.watching);
  }

  private run(task: DecodingTask, { first = false, signal, waiter = '' }: Urgency): Promise<unknown> {
    return new Promise((resolve, reject) => {
      signal?.throwIfAborted();
      if (this.ended) throw new Error('The program is being stopped.');
      const one: Waiting = { task, first, waiter, resolve, reject };
      signal?.addEventListener('abort', () => this.cancel(one, signal.reason), { once: true });
      this.waiting.push(one);
      this.next();
    });
  }

  private next(): void {
    const busy = [...this.decoders].filter(({ work }) => work !== null);
    const one = this.nextWaiting();
    this.drawNext(busy);
    const drawings = Math.min(mostDrawings, busy.filter(({ isDrawing }) => isDrawing).length);
    if (!one || this.ended || busy.length - drawings >= (one.first ? atOnceFirst : atOnce)) return;
    this.waiting.splice(this.waiting.indexOf(one), 1);
    this.turn += 1;
    this.turns.set(one.waiter, this.turn);
    const decoder = this.idleFor(one) ?? this.start(one.first);
    void this.begin(decoder, one);
    this.next();
  }

  /** The most urgent; of those who wait for what is as urgent, whoever had no turn for longest; of one, what was asked for first. */
  private nextWaiting(): Waiting | undefined {
    const isFirst = this.waiting.some(({ first }) => first);
    const turnOf = ({ waiter }: Waiting) => this.turns.get(waiter) ?? 0;
    let next: Waiting | undefined;
    for (const one of this.waiting) {
      if (one.first === isFirst && (!next || turnOf(one) < turnOf(next))) next = one;
    }
    return next;
  }

  /** A process that has nothing to do: for what is urgent one that does not stand back, where there is one. */
  private idleFor({ first }: Waiting): Decoder | undefined {
    const idle = [...this.decoders].filter(({ work }) => work === null);
    return idle.find(({ isPatient }) => isPatient !== first) ?? (first ? idle[0] : undefined);
  }

  /** Lets the next drawing begin, where no other is being drawn. */
  private drawNext(busy: Decoder[]): void {
    const drawings = busy.filter(({ isDrawing }) => isDrawing);
    const next = drawings.find(({ isHeld }) => isHeld);
    if (!next || drawings.some(({ isHeld }) => !isHeld)) return;
    next.isHeld = false;
    next.began = Date.now();
    next.child.send({ mayDraw: true } satisfies Asked, (error) => {
      if (error) this.kill(next, error);
    });
  }

  private foundDrawing(decoder: Decoder): void {
    decoder.isDrawing = true;
    decoder.isHeld = true;
    this.next();
  }

  private async begin(decoder: Decoder, one: Waiting): Promise<void> {
    decoder.work = one;
    hold(decoder.child, true);
    decoder.began = Date.now();
    const before = await useOf(decoder.child.pid ?? 0);
    // Cancelled meanwhile.
    if (decoder.work !== one) return;
    decoder.processorBefore = before?.processor ?? 0;
    this.number += 1;
    const number = this.number;
    const hear = (answered: Answered) => {
      if (answered.number !== number || decoder.work !== one) return;
      if ('isDrawn' in answered) {
        this.foundDrawing(decoder);
        return;
      }
      decoder.child.off('message', hear);
      this.finish(decoder);
      if ('result' in answered) one.resolve(answered.result);
      else if ('refusal' in answered) one.reject(new UserError(answered.refusal.message, answered.refusal.status));
      else one.reject(new Error(`A file could not be opened: ${answered.failure}`));
    };
    decoder.child.on('message', hear);
    decoder.child.send({ number, task: one.task } satisfies Asked, (error) => {
      if (error && decoder.work === one) this.kill(decoder, error);
    });
    this.watching ??= setInterval(() => void this.watch(), watchMs).unref();
  }

  private finish(decoder: Decoder): void {
    decoder.work = null;
    decoder.isDrawing = false;
    hold(decoder.child, false);
    decoder.idleSince = Date.now();
    this.next();
  }

  private start(isUrgent = false): Decoder {
    const child = fork(fileURLToPath(script), isUrgent ? [] : [String(patience)], {
      execArgv: [...loaderOf(script), '--max-old-space-size=1024'],
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      env: { PATH: process.env.PATH, HOME: process.env.HOME, LANG: process.env.LANG, MALLOC_ARENA_MAX: '2' },
      cwd: fileURLToPath(new URL('../../..', import.meta.url)),
    });
    const decoder: Decoder = {
      child,
      isPatient: !isUrgent,
      work: null,
      began: 0,
      processorBefore: 0,
      isDrawing: false,
      isHeld: false,
      idleSince: Date.now(),
    };
    this.decoders.add(decoder);
    hold(child, false);
    child.on('error', (error) => this.kill(decoder, error));
    child.on('exit', () => this.kill(decoder, tooHard('ended the process that opens it')));
    // Where memory runs short in spite of all, the system ends this process and not the program.
    if (child.pid) void writeFile(`/proc/${child.pid}/oom_score_adj`, '900').catch(() => undefined);
    return decoder;
  }

  /** Ends a process and what it works on. */
  private kill(decoder: Decoder, reason: unknown): void {
    if (!this.decoders.delete(decoder)) return;
    decoder.child.kill('SIGKILL');
    const { work } = decoder;
    decoder.work = null;
    work?.reject(reason);
    this.next();
  }

  private cancel(one: Waiting, reason: unknown): void {
    const at = this.waiting.indexOf(one);
    if (at >= 0) {
      this.waiting.splice(at, 1);
      one.reject(reason);
      return;
    }
    const decoder = [...this.decoders].find(({ work }) => work === one);
    if (decoder) this.kill(decoder, reason);
  }

  private async watch(): Promise<void> {
    for (const decoder of this.decoders) {
      const { child, work, began, processorBefore, idleSince, isHeld } = decoder;
      if (isHeld) continue;
      const use = await useOf(child.pid ?? 0);
      if (!use) continue;
      if (work === null) {
        const isSpare = this.decoders.size > 1 && Date.now() - idleSince > idleMs;
        if (decoder.work === null && (use.memory > grown || isSpare)) this.replace(decoder);
        continue;
      }
      // What was measured has to be about what it works on now.
      if (decoder.work !== work) continue;
      const { memory, clock } = this.limits;
      const processor = decoder.isDrawing ? this.limits.drawing : this.limits.processor;
      if (use.memory > memory) this.kill(decoder, tooHard(`takes more than ${gigabytes(memory)} GB of memory`));
      else if (use.processor - processorBefore > processor)
        this.kill(decoder, tooHard(`takes more than ${processor} seconds of computing`));
      else if (Date.now() - began > clock * 1000) this.kill(decoder, tooHard(`takes more than ${clock} seconds`));
    }
  }

  private replace(decoder: Decoder): void {
    this.kill(decoder, null);
    if (this.decoders.size === 0 && !this.ended) this.start();
  }
}

/** Whether a process keeps the program alive: one that works does, one that waits for work does not. */
function hold(child: ChildProcess, isWorking: boolean): void {
  if (isWorking) {
    child.ref();
    child.channel?.ref();
  } else {
    child.unref();
    child.channel?.unref();
  }
}

const gigabytes = (bytes: number) => Math.round(bytes / 1e8) / 10;

const tooHard = (what: string) =>
  new UserError(
    `Opening this file ${what}, which is more than a picture of its dimensions needs. Save it again as PNG or JPEG, or simplify it, and choose that.`,
    413,
  );
