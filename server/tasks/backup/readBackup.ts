import { createHash, type Hash } from 'node:crypto';
import { z } from 'zod';
import type { CopiedTable } from '../../store/backup/snapshot.ts';
import { entriesOf } from './backupFile.ts';
import { type End, EndSchema, type Header, HeaderSchema, names, TableSchema, UnfitBackup } from './format.ts';
import { openedKey, openingWith } from './sealing.ts';

/** Who hears what a backup holds, in its order. What is heard is right only once all of it was read. */
export interface Hearing {
  header(header: Header): Promise<void>;
  /** A piece of a file, each in its order; those of several files may come in turns. */
  piece(sha256: string, data: Buffer): Promise<void>;
  /** All tables, each after those that it refers to: their rows follow. */
  tables(tables: readonly CopiedTable[]): Promise<void>;
  rows(table: string, data: Buffer): Promise<void>;
}

const damaged = (path: string, what: string) =>
  new UnfitBackup(`${path} is damaged: ${what}. Take another backup, or copy this one again.`);

/**
 * Reads a backup from its begin to its end, without a database, and checks all of it: every file by its SHA-256, and that all are there.
 *
 * @param passphrase asked for where it is encrypted
 * @throws UnfitBackup
 */
export async function readBackup(
  path: string,
  passphrase: string | null,
  hearing: Hearing,
): Promise<{ header: Header; end: End }> {
  let header: Header | null = null;
  let end: End | null = null;
  let opening = openingWith(null);
  const files = new Map<string, { hash: Hash; bytes: number; next: number }>();
  const tables = new Map<string, { hash: Hash; bytes: number }>();
  for await (const entry of entriesOf(path)) {
    if (header === null) {
      header = headerIn(path, entry.name, entry.data);
      if (header.isEncrypted && passphrase === null) {
        throw new UnfitBackup(`${path} is encrypted. Name its passphrase by INKWELL_BACKUP_PASSPHRASE.`);
      }
      await hearing.header(header);
      continue;
    }
    if (entry.name === names.key) {
      opening = openingWith(await openedKey(entry.data, passphrase ?? ''));
      continue;
    }
    const { name, data } = await opening.open(entry.name, entry.data).catch((error: unknown) => {
      throw Object.assign(damaged(path, `${entry.name} cannot be opened`), { cause: error });
    });
    const [kind, of = '', index = ''] = name.split('/');
    if (kind === 'blobs') {
      if (!/^[0-9a-f]{64}$/.test(of)) throw damaged(path, 'a file has no name');
      const file = files.get(of) ?? { hash: createHash('sha256'), bytes: 0, next: 0 };
      if (Number(index) !== file.next) throw damaged(path, `a piece of ${of} is missing`);
      file.hash.update(data);
      files.set(of, { ...file, bytes: file.bytes + data.length, next: file.next + 1 });
      await hearing.piece(of, data);
    } else if (kind === 'rows') {
      const table = tables.get(of) ?? { hash: createHash('sha256'), bytes: 0 };
      table.hash.update(data);
      tables.set(of, { ...table, bytes: table.bytes + data.length });
      await hearing.rows(of, data);
    } else if (name === names.tables) {
      await hearing.tables(z.array(TableSchema).parse(JSON.parse(data.toString())));
    } else if (name === names.end) {
      end = EndSchema.parse(JSON.parse(data.toString()));
    }
  }
  if (header === null || end === null) throw new UnfitBackup(`${path} ends in the middle. It was not made to its end.`);
  const digests = new Map(
    [...files].map(([sha256, { hash, bytes }]) => [sha256, { digest: hash.digest('hex'), bytes }]),
  );
  for (const { sha256, bytes } of end.blobs) {
    const file = digests.get(sha256);
    if (!file) throw damaged(path, `the file ${sha256} is missing`);
    if (file.bytes !== bytes || file.digest !== sha256) throw damaged(path, `the file ${sha256} is not as it was`);
  }
  for (const { name, sha256, bytes } of end.tables) {
    const found = tables.get(name);
    const digest = (found?.hash ?? createHash('sha256')).digest('hex');
    if (digest !== sha256 || (found?.bytes ?? 0) !== bytes)
      throw damaged(path, `the rows of ${name} are not as they were`);
  }
  return { header, end };
}

function headerIn(path: string, name: string, data: Buffer): Header {
  const none = () => new UnfitBackup(`${path} is no backup of this program.`);
  if (name !== names.header) throw none();
  let said: unknown;
  try {
    said = JSON.parse(data.toString());
  } catch {
    throw none();
  }
  const found = HeaderSchema.safeParse(said);
  if (found.success) return found.data;
  throw new UnfitBackup(`${path} is no backup that this version of the program can read. A newer one may.`);
}

/** Looks whether a backup is whole. @throws UnfitBackup where it is not */
export const checkBackup = (path: string, passphrase: string | null): Promise<{ header: Header; end: End }> => {
  const nothing = async () => undefined;
  return readBackup(path, passphrase, { header: nothing, piece: nothing, tables: nothing, rows: nothing });
};
