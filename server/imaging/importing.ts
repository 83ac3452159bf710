import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rm } from 'node:fs/promises';
import { join, parse } from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { NameSchema, type Original, originalLimits } from '@inkwell/core/model';
import { Refusal } from '../refusal.ts';
import type { Database } from '../store/database.ts';
import { addOriginal } from '../store/originals.ts';
import { inspect } from './inspect.ts';
import { readMetadata } from './readMetadata.ts';
import { removeReadable, type WorkingCopies } from './workingCopy.ts';

/** Takes pictures in: from a stream of bytes to an original, or to a refusal that leaves no trace. */
export class Importing {
  private constructor(
    private readonly folder: string,
    private readonly db: Database,
    private readonly copies: WorkingCopies,
  ) {}

  /** @param folder where half-arrived files lie; what processes that are gone have left there is removed */
  static async open(folder: string, db: Database, copies: WorkingCopies): Promise<Importing> {
    await mkdir(folder, { recursive: true });
    for (const name of await readdir(folder)) {
      if (!isRunning(Number.parseInt(name, 10))) await rm(join(folder, name), { force: true });
    }
    return new Importing(folder, db, copies);
  }

  /** @throws Refusal in plain words; also where `signal` ends it */
  async take(source: Readable, fileName: string, signal?: AbortSignal): Promise<Original> {
    const path = join(this.folder, `${process.pid}-${randomUUID()}`);
    try {
      const { sha256, bytes } = await receive(source, path, signal);
      const inspected = await inspect(path);
      await this.copies.prepare({ sha256, page: inspected.page }, path, inspected);
      signal?.throwIfAborted();
      const { readable: _, orientation: __, density: ___, ...picture } = inspected;
      // Many programs write an alpha channel into pictures that are opaque throughout.
      const hasAlpha = picture.hasAlpha && (await this.copies.isTransparent({ sha256, page: inspected.page }));
      const named = { name: nameFor(fileName), fileName: fileName.slice(0, 255) };
      return await addOriginal(
        this.db,
        { ...named, sha256, bytes, ...picture, hasAlpha, ...(await readMetadata(path)) },
        path,
      );
    } finally {
      await removeReadable(path);
    }
  }
}

/** The file's name without folder and extension, as a name for people. */
function nameFor(fileName: string): string {
  const stem = parse(fileName).name.replace(/[_\s]+/g, ' ');
  return NameSchema.safeParse(stem.slice(0, 120)).data ?? 'Picture';
}

function isRunning(pid: number): boolean {
  if (Number.isNaN(pid)) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/** Writes the stream to a file and takes its SHA-256 on the way. */
async function receive(source: Readable, path: string, signal?: AbortSignal) {
  const hash = createHash('sha256');
  let bytes = 0;
  const counting = new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length;
      hash.update(chunk);
      const megabytes = originalLimits.bytes / 1e6;
      if (bytes > originalLimits.bytes) {
        done(
          new Refusal(
            `This file weighs more than ${megabytes} MB, the most that is taken. Save a lighter copy and choose that.`,
            413,
          ),
        );
      } else done(null, chunk);
    },
  });
  await pipeline(source, counting, createWriteStream(path), signal ? { signal } : {});
  return { sha256: hash.digest('hex'), bytes };
}
