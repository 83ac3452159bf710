import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join, parse } from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { NameSchema, type Original, originalLimits } from '@inkwell/core/model';
import { storable } from '../../database/storable.ts';
import { BoundedFolder } from '../../imaging/copies/boundedFolder.ts';
import type { WorkingCopies } from '../../imaging/copies/workingCopy.ts';
import type { Decoders } from '../../imaging/intake/processes/decoders.ts';
import { refusedFiles, timed } from '../../running/counting.ts';
import type { Database } from '../../store/database.ts';
import { addOriginal, type KeptOfOriginal } from '../../store/library/originals.ts';
import { UserError } from '../../userError.ts';
import { holdShares } from '../sharing/refusing.ts';
import { queueLooking } from './lookingAt.ts';

/** Takes pictures in: from a stream of bytes to an original, or to a refusal that leaves no trace. */
export class Importing {
  private constructor(
    private readonly folder: BoundedFolder,
    private readonly db: Database,
    private readonly copies: WorkingCopies,
    private readonly decoders: Decoders,
    private readonly isLooking: boolean,
    private readonly waiter: string,
  ) {}

  /**
   * @param folder where half-arrived files lie; what processes that are gone have left there is removed
   * @param isLooking asks to look at what comes in; a worker that starts asks for what nobody has looked at in any case
   */
  static async open(
    folder: string,
    db: Database,
    copies: WorkingCopies,
    decoders: Decoders,
    isLooking: boolean,
  ): Promise<Importing> {
    const bounded = await BoundedFolder.open(folder, Number.POSITIVE_INFINITY);
    await bounded.removeAllBut(() => false);
    return new Importing(bounded, db, copies, decoders, isLooking, '');
  }

  /** The same for other rows. @param waiter for whom: people take turns at the decoders */
  into(db: Database, waiter: string): Importing {
    return new Importing(this.folder, db, this.copies, this.decoders, this.isLooking, waiter);
  }

  /** Does something with a folder of its own, which is there as long as that takes: for what came in and is looked at before it is taken. */
  async aside<Result>(task: (folder: string) => Promise<Result>): Promise<Result> {
    const own = this.folder.unfinished();
    try {
      await mkdir(own, { mode: 0o700 });
      return await task(own);
    } finally {
      await rm(own, { recursive: true, force: true });
    }
  }

  /** @param kept of the original that it was made from @throws UserError in plain words; also where `signal` ends it */
  async take(source: Readable, fileName: string, signal?: AbortSignal, kept: KeptOfOriginal = {}): Promise<Original> {
    // A folder of its own: nothing else lies beside the file while it is opened.
    const own = this.folder.unfinished();
    const to = this.copies.unfinished();
    try {
      await mkdir(own, { mode: 0o700 });
      const path = join(own, 'picture');
      const { sha256, bytes } = await receive(source, path, signal);
      const decoded = await timed('decode', () =>
        this.decoders.copy({ path, page: 0, to }, { signal, waiter: this.waiter }),
      );
      await this.copies.keep({ sha256, page: 0 }, to);
      signal?.throwIfAborted();
      const cleaned = storable(fileName);
      const named = { name: nameFor(cleaned), fileName: cleaned.slice(0, 255) };
      return await addOriginal(
        this.db,
        { ...named, ...kept, sha256, bytes, ...decoded },
        path,
        async (tx, original) => {
          if (this.isLooking) await queueLooking(tx, [original]);
          await holdShares(tx, 'bytes', 'jobs');
        },
      );
    } catch (error) {
      if (error instanceof UserError) refusedFiles.inc({ status: error.status });
      throw error;
    } finally {
      await rm(own, { recursive: true, force: true });
      await rm(to, { recursive: true, force: true });
    }
  }
}

/** The file's name without folder and extension, as a name for people. */
function nameFor(fileName: string): string {
  const stem = parse(fileName).name.replace(/[_\s]+/g, ' ');
  return NameSchema.safeParse(stem.slice(0, 120)).data ?? 'Picture';
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
          new UserError(
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
