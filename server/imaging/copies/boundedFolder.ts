import { randomUUID } from 'node:crypto';
import { mkdir, readdir, rm, stat, utimes } from 'node:fs/promises';
import { join } from 'node:path';
import { isRunning } from './isRunning.ts';

const unfinishedPrefix = 'unfinished-';
const isBeingMade = (name: string) => isRunning(Number.parseInt(name.slice(unfinishedPrefix.length), 10));

/** A folder of files, and folders of files, that can be made again. When it grows past its bound, those used longest ago go first. */
export class BoundedFolder {
  private added = 0;

  private constructor(
    readonly path: string,
    private readonly bound: number,
    private readonly lookEvery: number,
  ) {}

  /**
   * @param bound in bytes
   * @param lookEvery after how many new files the folder is weighed
   */
  static async open(path: string, bound: number, lookEvery = 1): Promise<BoundedFolder> {
    await mkdir(path, { recursive: true, mode: 0o700 });
    const folder = new BoundedFolder(path, bound, lookEvery);
    await folder.removeAllBut(() => true);
    return folder;
  }

  /** A path for what is being made; nobody else uses it, and the folder does not count it. */
  unfinished(): string {
    return join(this.path, `${unfinishedPrefix}${process.pid}-${randomUUID()}`);
  }

  /** Removes what is not wanted any more, and what processes that are gone have left unfinished. */
  async removeAllBut(isWanted: (name: string) => boolean): Promise<void> {
    for (const name of await readdir(this.path)) {
      const stays = name.startsWith(unfinishedPrefix) ? isBeingMade(name) : isWanted(name);
      if (!stays) await rm(join(this.path, name), { recursive: true, force: true });
    }
  }

  /** Says that a file was added; now and then the folder is brought back within its bound. */
  async noteAdded(): Promise<void> {
    this.added += 1;
    if (this.added % this.lookEvery === 0) await this.trim();
  }

  /** Notes that a file is used now. False where it is not there. */
  async touch(name: string): Promise<boolean> {
    const now = new Date();
    try {
      await utimes(join(this.path, name), now, now);
      return true;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return false;
      throw error;
    }
  }

  /** Removes what was used longest ago until the rest is within the bound; the newest file always stays. */
  private async trim(): Promise<void> {
    const names = (await readdir(this.path)).filter((name) => !name.startsWith(unfinishedPrefix));
    const files = await Promise.all(
      names.map(async (name) => {
        const path = join(this.path, name);
        const found = await stat(path).catch(() => null);
        return {
          name,
          bytes: found?.isDirectory() ? await within(path) : (found?.size ?? 0),
          used: found?.mtimeMs ?? 0,
        };
      }),
    );
    files.sort((a, b) => b.used - a.used);
    let total = 0;
    for (const [index, file] of files.entries()) {
      total += file.bytes;
      if (index > 0 && total > this.bound) {
        await rm(join(this.path, file.name), { recursive: true, force: true });
      }
    }
  }
}

/** Bytes of the files in a folder. What vanishes meanwhile counts nothing. */
async function within(path: string): Promise<number> {
  const names = await readdir(path).catch(() => []);
  const sizes = await Promise.all(
    names.map(async (name) => (await stat(join(path, name)).catch(() => null))?.size ?? 0),
  );
  return sizes.reduce((sum, bytes) => sum + bytes, 0);
}
