import { createReadStream } from 'node:fs';
import { type FileHandle, open, rename } from 'node:fs/promises';
import { dirname } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { extract, pack } from 'tar-stream';
import { UnfitBackup } from './format.ts';

/** An entry of a backup, as it lies in the archive. */
export interface Entry {
  name: string;
  data: Buffer;
}

/** No entry is longer: a piece with what sealing adds, a table of all files with room to spare. */
const mostBytes = 256 << 20;
const block = 512;
/** What a tar archive takes for an entry: a block that tells of it, and its bytes in whole blocks. */
const lengthOf = (bytes: number) => block + Math.ceil(bytes / block) * block;

/**
 * The entries of a backup, one after the other. The file may be broken off anywhere.
 *
 * @throws UnfitBackup where it is none, or ends in the middle of an entry
 */
export async function* entriesOf(path: string): AsyncGenerator<Entry> {
  const archive = extract();
  const source = createReadStream(path, { highWaterMark: 1 << 20 });
  source.on('error', (error) => archive.destroy(error));
  source.pipe(archive);
  try {
    for await (const entry of archive) {
      const { name, size = 0 } = entry.header;
      if (size > mostBytes) throw new UnfitBackup(`${path} is damaged, or no backup. Take another one.`);
      const data = await buffer(entry);
      if (data.length !== size) throw new UnfitBackup(`${path} ends in the middle. It was not made to its end.`);
      yield { name, data };
    }
  } catch (error) {
    if (error instanceof UnfitBackup || isOfDisk(error)) throw error;
    throw Object.assign(new UnfitBackup(`${path} is damaged, or no backup. Take another one.`), { cause: error });
  } finally {
    source.destroy();
  }
}

const isOfDisk = (error: unknown): boolean => error instanceof Error && 'syscall' in error;

/** What an archive ends with. */
const endOfArchive = Buffer.alloc(2 * block);

/** An entry as it lies in the archive. */
async function packed({ name, data }: Entry): Promise<Buffer> {
  const archive = pack();
  archive.entry({ name, size: data.length, mtime: new Date(0) }, data);
  archive.finalize();
  const whole = await buffer(archive);
  return whole.subarray(0, whole.length - endOfArchive.length);
}

/** A backup that is being written: under another name until it is whole. */
export class BackupWriter {
  private constructor(
    private readonly unfinished: string,
    private readonly file: FileHandle,
    /** What is there already of a try that was broken off. */
    readonly there: ReadonlyMap<string, Buffer | null>,
    /** How many bytes it has. */
    private length: number,
  ) {}

  /**
   * @param unfinished where it lies until it is whole; what is there of a try that was broken off goes on
   * @param goesOn whether what was broken off goes on: by its first entry
   * @param ends whether an entry is the first of those that have to be made anew
   * @param keeps names of entries whose bytes are wanted again
   */
  static async open(
    unfinished: string,
    {
      goesOn,
      ends,
      keeps,
    }: { goesOn: (first: Entry) => boolean; ends: (name: string) => boolean; keeps: readonly string[] },
  ): Promise<BackupWriter> {
    const there = new Map<string, Buffer | null>();
    let length = 0;
    try {
      for await (const entry of entriesOf(unfinished)) {
        if ((there.size === 0 && !goesOn(entry)) || ends(entry.name)) break;
        there.set(entry.name, keeps.includes(entry.name) ? entry.data : null);
        length += lengthOf(entry.data.length);
      }
    } catch (error) {
      // Where it was broken off is where it goes on; where there is nothing it begins.
      if (!(error instanceof UnfitBackup) && !isMissing(error)) throw error;
    }
    const file = await open(unfinished, length > 0 ? 'r+' : 'w', 0o600);
    await file.truncate(length);
    return new BackupWriter(unfinished, file, there, length);
  }

  get bytes(): number {
    return this.length;
  }

  async add(entry: Entry): Promise<void> {
    await this.write(await packed(entry));
  }

  private async write(data: Buffer): Promise<void> {
    for (let done = 0; done < data.length; ) {
      const { bytesWritten } = await this.file.write(data, done, data.length - done, this.length);
      done += bytesWritten;
      this.length += bytesWritten;
    }
  }

  /** Puts it in its place, whole. */
  async end(path: string): Promise<void> {
    await this.write(endOfArchive);
    await this.file.sync();
    await this.file.close();
    await rename(this.unfinished, path);
    const folder = await open(dirname(path), 'r');
    await folder.sync();
    await folder.close();
  }

  /** Leaves what is there, for the next try. */
  leave(): Promise<void> {
    return this.file.close();
  }
}

const isMissing = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === 'ENOENT';
