import { createHash } from 'node:crypto';
import { appendFile, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Writable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { openRestoring, type Restoring } from '../../store/backup/restoring.ts';
import type { CopiedTable } from '../../store/backup/snapshot.ts';
import { type End, UnfitBackup } from './format.ts';
import { readBackup } from './readBackup.ts';

/**
 * Restores a backup into an empty database: all of it or nothing. The schema is as it was then; whatever opens the database next brings it up
 * to date.
 *
 * @param onFile hears how many files are done
 * @throws UnfitBackup, or UnfitDatabase where the database cannot take it
 */
export async function restoreBackup(
  url: string,
  path: string,
  { passphrase, onFile = () => undefined }: { passphrase: string | null; onFile?: (done: number) => void },
): Promise<End> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-restoring-'));
  let restoring: Restoring | null = null;
  const into = (): Restoring => {
    if (!restoring) throw new UnfitBackup(`${path} is no backup of this program.`);
    return restoring;
  };
  const files = new Files(folder);
  const rows = new Rows();
  let kept = 0;
  try {
    const { end } = await readBackup(path, passphrase, {
      header: async ({ schema }) => {
        restoring = await openRestoring(url, schema);
      },
      piece: async (sha256, data) => {
        await files.add(sha256, data);
        // Its last piece may have come; where it has not, the next one of this file goes on.
        const whole = files.takeWhole(sha256);
        if (!whole) return;
        await into().keepBlob(whole.path, sha256, whole.bytes);
        await rm(whole.path);
        kept += 1;
        onFile(kept);
      },
      tables: async (tables) => rows.know(tables),
      rows: async (name, data) => rows.add(name, data, into()),
    });
    await rows.end();
    await into().keep();
    return end;
  } finally {
    await (restoring as Restoring | null)?.close();
    await rm(folder, { recursive: true, force: true });
  }
}

/** Files on their way, until the bytes that have come are those of their names. */
class Files {
  private readonly open = new Map<string, { hash: ReturnType<typeof createHash>; bytes: number }>();

  constructor(private readonly folder: string) {}

  async add(sha256: string, data: Buffer): Promise<void> {
    const one = this.open.get(sha256) ?? { hash: createHash('sha256'), bytes: 0 };
    await appendFile(join(this.folder, sha256), data);
    one.hash.update(data);
    one.bytes += data.length;
    this.open.set(sha256, one);
  }

  takeWhole(sha256: string): { path: string; bytes: number } | null {
    const one = this.open.get(sha256);
    if (!one || one.hash.copy().digest('hex') !== sha256) return null;
    this.open.delete(sha256);
    return { path: join(this.folder, sha256), bytes: one.bytes };
  }
}

/** Rows on their way into their tables, one table after the other. */
class Rows {
  private known = new Map<string, CopiedTable>();
  private current: { name: string; to: Writable } | null = null;

  know(tables: readonly CopiedTable[]): void {
    this.known = new Map(tables.map((one) => [one.name, one]));
  }

  async add(name: string, data: Buffer, restoring: Restoring): Promise<void> {
    if (this.current?.name !== name) {
      await this.end();
      const table = this.known.get(name);
      if (!table) throw new UnfitBackup(`The backup does not say what the table ${name} is.`);
      const to = restoring.rowsOf(table);
      // What the database does not take is told to whoever writes next, or waits for the end.
      to.on('error', () => undefined);
      this.current = { name, to };
    }
    const { to } = this.current;
    await new Promise<void>((resolve, reject) => to.write(data, (error) => (error ? reject(error) : resolve())));
  }

  async end(): Promise<void> {
    if (!this.current) return;
    const { to } = this.current;
    this.current = null;
    to.end();
    await finished(to);
  }
}
