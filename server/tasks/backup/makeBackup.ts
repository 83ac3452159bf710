import { createHash } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { openSnapshot, type Snapshot } from '../../store/backup/snapshot.ts';
import { chunkBytes, evenly } from '../../store/blobs/chunks.ts';
import { BackupWriter, type Entry } from './backupFile.ts';
import { type End, type Header, names, UnfitBackup } from './format.ts';
import { closedKey, newKey, openedKey, plainName, type Sealing, sealingWith } from './sealing.ts';

export interface MadeBackup {
  path: string;
  takenAt: Date;
  files: number;
  bytes: number;
}

/** Where a backup lies until it is whole, and what it is called then, by the moment that it is of. */
export interface Places {
  unfinished: string;
  whole: (takenAt: Date) => string;
}

/**
 * Makes a backup of the database as it is at one moment, while people go on working. Where an earlier try was broken off, what it has of
 * files is used.
 *
 * @param passphrase null where it is not encrypted
 * @param onFile hears how many files are done, of how many
 */
export async function makeBackup(
  url: string,
  places: Places,
  { passphrase, onFile = () => undefined }: { passphrase: string | null; onFile?: (done: number, of: number) => void },
): Promise<MadeBackup> {
  const snapshot = await openSnapshot(url, places.unfinished);
  try {
    const header: Header = {
      format: 'Inkwell Frame backup',
      version: 1,
      schema: snapshot.schema,
      isEncrypted: passphrase !== null,
    };
    const { writer, sealing } = await begin(places.unfinished, header, passphrase);
    const path = places.whole(snapshot.takenAt);
    try {
      await addFiles(writer, sealing, snapshot, onFile);
      await addRows(writer, sealing, snapshot);
      await writer.end(path);
    } catch (error) {
      await writer.leave();
      throw error;
    }
    return { path, takenAt: snapshot.takenAt, files: snapshot.blobs.length, bytes: writer.bytes };
  } finally {
    await snapshot.close();
  }
}

/** Whether what was broken off can go on: its rows would be of the same schema, and all of it is closed by one key or none. */
const isSame = ({ name, data }: Entry, header: Header): boolean => name === names.header && data.equals(json(header));

const json = (value: unknown): Buffer => Buffer.from(JSON.stringify(value));

/** Begins a backup, or goes on with what was broken off, where that can be. */
async function begin(
  unfinished: string,
  header: Header,
  passphrase: string | null,
): Promise<{ writer: BackupWriter; sealing: Sealing }> {
  const writer = await BackupWriter.open(unfinished, {
    goesOn: (first) => isSame(first, header),
    // Rows are of one moment.
    ends: (name) => plainName(name) === names.tables,
    keeps: [names.key],
  });
  if (!writer.there.has(names.header)) await writer.add({ name: names.header, data: json(header) });
  if (passphrase === null) return { writer, sealing: await sealingWith(null) };
  const known = writer.there.get(names.key);
  if (known) {
    const key = await openedKey(known, passphrase).catch((error: unknown) => {
      if (error instanceof UnfitBackup) return null;
      throw error;
    });
    if (key !== null) return { writer, sealing: await sealingWith(key) };
    // It was begun with another passphrase, and nobody may have to know two.
    await writer.leave();
    await rm(unfinished);
    return begin(unfinished, header, passphrase);
  }
  const key = await newKey();
  await writer.add({ name: names.key, data: await closedKey(key, passphrase) });
  return { writer, sealing: await sealingWith(key) };
}

async function addFiles(
  writer: BackupWriter,
  sealing: Sealing,
  { blobs, blob }: Snapshot,
  onFile: (done: number, of: number) => void,
): Promise<void> {
  const there = new Set([...writer.there.keys()].map(plainName));
  for (const [done, { sha256, bytes }] of blobs.entries()) {
    const count = Math.ceil(bytes / chunkBytes);
    const isThere = Array.from({ length: count }, (_, at) => there.has(names.blob(sha256, at))).every(Boolean);
    if (!isThere) {
      let index = 0;
      for await (const data of evenly(blob(sha256))) {
        const name = names.blob(sha256, index);
        if (!there.has(name)) await writer.add(await sealing.seal(name, data));
        index += 1;
      }
    }
    onFile(done + 1, blobs.length);
  }
}

async function addRows(writer: BackupWriter, sealing: Sealing, snapshot: Snapshot): Promise<void> {
  const add = async (name: string, data: Buffer) => writer.add(await sealing.seal(name, data));
  await add(names.tables, json(snapshot.tables));
  const tables: End['tables'] = [];
  for (const table of snapshot.tables) {
    const hash = createHash('sha256');
    let [index, bytes] = [0, 0];
    for await (const data of evenly(snapshot.copy(table))) {
      hash.update(data);
      bytes += data.length;
      await add(names.rows(table.name, index), data);
      index += 1;
    }
    tables.push({ name: table.name, sha256: hash.digest('hex'), bytes });
  }
  const end: End = { takenAt: snapshot.takenAt.toISOString(), tables, blobs: snapshot.blobs };
  await add(names.end, json(end));
}
