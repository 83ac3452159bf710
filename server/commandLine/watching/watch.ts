import { setTimeout as pause } from 'node:timers/promises';
import pLimit, { type LimitFunction } from 'p-limit';
import type { Services } from '../../services.ts';
import { type Code, codes } from '../codes.ts';
import { type Context, shown } from '../context.ts';
import { failureWords } from '../failures.ts';
import { frameOne, type WatchTask } from './frameOne.ts';
import { type Folders, filesComing, filesThere } from './incoming.ts';
import { Ledger } from './ledger.ts';
import { type ProjectOptions, projectWithRoom } from './watchedProject.ts';

/** What a folder is watched with. */
export interface WatchOptions extends Folders, ProjectOptions {
  /** Ends as soon as all that is there was looked at. */
  isOnce: boolean;
}

/** Before what holds for all files, such as a full disk, is tried again. */
const retryMs = 10_000;

/**
 * Frames what comes into a folder, each picture once, however often it is started. What is refused is moved aside, beside a text that says why.
 *
 * @param ended ends it: what is being framed is finished first
 */
export async function watch(
  context: Context,
  services: Services,
  options: WatchOptions,
  ended: AbortSignal,
): Promise<Code> {
  const { folder, out, isOnce } = options;
  const watching = new Watching(context, services, options, await Ledger.open(out), ended);
  const take = (path: string) => watching.take(path);
  if (isOnce) await filesThere(options, take);
  else {
    context.say(`Watching ${shown(context, folder)}. What comes of it goes to ${shown(context, out)}. Ctrl-C ends it.`);
    const failed = (error: unknown) =>
      watching.say(folder, `${failureWords(error)} What comes in may not be seen until that is mended.`);
    await filesComing(options, take, failed, ended);
  }
  return watching.isAnyLeft ? codes.wrong : codes.right;
}

/** Takes files, two at a time, each as often as it has changed. */
class Watching {
  /** Whether anything was refused or left out. */
  isAnyLeft = false;
  private readonly limit = pLimit(2);
  /** Projects are begun one after the other. */
  private readonly beginning = pLimit(1);
  /** What is about the same bytes comes one after the other: one is framed, and then the other is known. */
  private readonly turns = new Map<string, LimitFunction>();
  /** Files that wait, or are looked at; true where one has changed since that began. */
  private readonly active = new Map<string, boolean>();

  constructor(
    private readonly context: Context,
    private readonly services: Services,
    private readonly options: WatchOptions,
    private readonly ledger: Ledger,
    private readonly ended: AbortSignal,
  ) {}

  say(path: string, words: string): void {
    this.context.say(`${shown(this.context, path)}: ${words}`);
  }

  /** Takes a file until nothing about it has changed meanwhile. Never throws. */
  async take(path: string): Promise<void> {
    const { active } = this;
    if (active.has(path)) {
      active.set(path, true);
      return;
    }
    active.set(path, false);
    await this.limit(async () => {
      do {
        active.set(path, false);
        try {
          if (!this.ended.aborted) await this.lookAt(path);
        } catch (error) {
          // It holds for all of them: nothing is moved, and it is tried again until it works.
          this.say(path, `${failureWords(error)} It is tried again.`);
          active.set(path, true);
          await pause(retryMs, undefined, { signal: this.ended }).catch(() => undefined);
        }
      } while (active.get(path) && !this.ended.aborted);
      active.delete(path);
    });
  }

  private async lookAt(path: string): Promise<void> {
    const outcome = await frameOne(this.services, await this.task(), path);
    switch (outcome.is) {
      case 'moving':
        return;
      case 'known':
        this.say(path, `was framed before, into ${outcome.folder}.`);
        return;
      case 'refused':
        this.isAnyLeft = true;
        this.say(path, `${outcome.reason} It is in ${shown(this.context, outcome.to)} now.`);
        return;
      case 'framed': {
        const { files, leftOut } = outcome.delivery;
        this.say(path, `${files.length} ${files.length === 1 ? 'file' : 'files'} in ${outcome.folder}.`);
        for (const one of leftOut) this.say(path, `left out ${one.file}: ${one.reasons.join(' ')}`);
        if (leftOut.length > 0) this.isAnyLeft = true;
      }
    }
  }

  private async task(): Promise<WatchTask> {
    const { services, options, ledger } = this;
    const project = await this.beginning(() => projectWithRoom(services, options, ledger));
    const inTurn: WatchTask['inTurn'] = (sha256, doing) => {
      const turn = this.turns.get(sha256) ?? pLimit(1);
      this.turns.set(sha256, turn);
      return turn(doing);
    };
    return { folder: options.folder, out: options.out, project, ledger, inTurn };
  }
}
