import { createHash, randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { eq, sql } from 'drizzle-orm';
import { afterAll, describe, expect, inject, test } from 'vitest';
import { runCommand } from '../commandLine/commands/index.ts';
import { type Settings, s3Settings } from '../settings/settings.ts';
import { start } from '../start.ts';
import { blobBytes, keepBytes, readBlob } from '../store/blobs/blobs.ts';
import { blobsByPlace, moveBlob, removeUnneeded } from '../store/blobs/moving.ts';
import { objects } from '../store/blobs/objects.ts';
import { openDatabase } from '../store/database.ts';
import { clearUnused } from '../store/library/clearing.ts';
import { blobChunks, blobs, unneededObjects } from '../store/schema/index.ts';
import { inFile } from '../tasks/backup/backUp.ts';
import { makeBackup } from '../tasks/backup/makeBackup.ts';
import { restoreBackup } from '../tasks/backup/restoreBackup.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { Client, until } from '../testing/programs/client.ts';
import { bareDatabase, testSettings } from '../testing/programs/program.ts';
import { S3Server } from '../testing/programs/s3Server.ts';

const s3 = new S3Server(inject('dataFolder'));
await s3.start();
afterAll(() => s3.stop());
const settings: Settings = { ...(await testSettings()), ...s3.settings };
const running = await start(settings);
afterAll(() => running.stop());
const client = new Client(running.address);
const { whole: db } = running.door;

const hashOf = (data: Buffer) => createHash('sha256').update(data).digest('hex');
const placeOf = async (sha256: string) =>
  (await db.select({ place: blobs.place }).from(blobs).where(eq(blobs.sha256, sha256)))[0]?.place;
const chunks = async () => (await db.select({ index: blobChunks.index }).from(blobChunks)).length;
/** Whether an object is in the store. */
const isThere = async (sha256: string) => {
  const body = await objects().get(sha256, 0);
  body?.destroy();
  return body !== null;
};

describe('bytes in an S3 store', () => {
  test('a project is framed and delivered with all its bytes there, and none in the database', async () => {
    const picture = await chart(900, 700).png().toBuffer();
    const original = await client.original(picture, 'a.png');
    const project = await client.project('In a store', [original], ['sunpane/story', 'quillpost/inline-picture']);
    const delivery = await client.deliver(project.id);
    expect(delivery).toMatchObject({ state: 'done', leftOut: [] });
    expect(await chunks()).toBe(0);
    expect((await blobsByPlace(db)).s3.count).toBeGreaterThanOrEqual(3);
    expect((await client.bytes(`/originals/${original.id}/file`)).equals(picture)).toBe(true);
    expect((await client.bytes(`/deliveries/${delivery.id}/archive`)).length).toBeGreaterThan(1000);
  });

  test('while the store is away that is said, work waits, and all goes on when it is back', async () => {
    const original = await client.original(await chart(500, 500).png().toBuffer(), 'b.png');
    await s3.stop();
    const refused = await client.upload(await chart(510, 500).png().toBuffer(), 'c.png');
    expect(refused).toMatchObject({ status: 503, body: { message: expect.stringContaining('store of the files') } });
    const project = await client.project('Away', [original], ['sunpane/story']);
    const asked = await client.ask('POST', '/deliveries', {
      projectId: project.id,
      seen: await client.seen(project.id),
    });
    const waits = () => db.execute(sql`select id from work where state = 'waiting' and not_before > now()`);
    await until(waits, ({ rows }) => rows.length > 0);
    await s3.start();
    expect(await client.delivered(asked)).toMatchObject({ state: 'done', leftOut: [] });
  });

  test('an object goes after its blob, and stays where somebody keeps the same bytes again', async () => {
    const [gone, again] = [randomBytes(3000), randomBytes(3000)];
    await db.transaction(async (tx) => {
      for (const data of [gone, again]) await keepBytes(tx, data);
    });
    expect(await clearUnused(db, 0)).toEqual(expect.arrayContaining([hashOf(gone), hashOf(again)]));
    expect(await db.select().from(unneededObjects)).toHaveLength(2);
    await db.transaction((tx) => keepBytes(tx, again));
    expect(await removeUnneeded(db)).toBe(2);
    expect([await isThere(hashOf(gone)), await isThere(hashOf(again))]).toEqual([false, true]);
    expect((await blobBytes(db, hashOf(again)))?.equals(again)).toBe(true);
  });
});

describe('moved', () => {
  const data = randomBytes(5_000_000);
  const sha256 = hashOf(data);

  test('bytes are read to their end while they are moved there and back', async () => {
    await db.transaction((tx) => keepBytes(tx, data));
    for (const to of ['database', 's3'] as const) {
      const reading = readBlob(db, sha256);
      const first = await new Promise<Buffer>((resolve) => reading.once('data', resolve));
      reading.pause();
      expect(await moveBlob(db, sha256, to)).toBe(data.length);
      expect(await moveBlob(db, sha256, to)).toBeNull();
      expect(await placeOf(sha256)).toBe(to);
      expect(Buffer.concat([first, await buffer(reading)]).equals(data)).toBe(true);
    }
  });

  test('what is not whole at its new place stays at its old', async () => {
    await objects().put(sha256, Buffer.alloc(data.length), data.length);
    await expect(moveBlob(db, sha256, 'database')).rejects.toThrow('not whole');
    expect(await placeOf(sha256)).toBe('s3');
    await objects().put(sha256, data, data.length);
  });

  test('a command moves all of them, and goes on where it was broken off', async () => {
    const all = (await blobsByPlace(db)).s3;
    const said: string[] = [];
    const command = (words: string[], more: Record<string, string> = {}) =>
      runCommand(words, {
        caller: inject('dataFolder'),
        environment: {
          DATABASE_URL: settings.DATABASE_URL,
          INKWELL_DATA: settings.INKWELL_DATA,
          ...s3.settings,
          ...more,
        },
        say: (line) => said.push(line),
      });
    // New bytes must go where all bytes go.
    expect(await command(['blobs', 'move', 'database'])).toBe(1);
    // Some are moved already, as after a move that was broken off.
    await moveBlob(db, sha256, 'database');
    expect(await command(['blobs', 'move', 'database'], { INKWELL_BLOBS: 'database' })).toBe(0);
    expect(said.at(-1)).toContain(`${all.count - 1} files moved`);
    expect(await blobsByPlace(db)).toEqual({ database: all, s3: { count: 0, bytes: 0 } });
    // No object is left that nobody needs.
    expect(await isThere(sha256)).toBe(false);
    expect((await blobBytes(db, sha256))?.equals(data)).toBe(true);
    await s3.stop();
    expect(await command(['blobs', 'move', 's3'])).toBe(2);
    expect((await blobsByPlace(db)).database.count).toBe(all.count);
    await s3.start();
    expect(await command(['blobs', 'move', 's3'])).toBe(0);
    expect(await chunks()).toBe(0);
    said.length = 0;
    expect(await command(['blobs', 'where'])).toBe(0);
    expect(said[1]).toContain(`${all.count} files`);
  });

  test('a backup has the bytes of the store as well, and puts them there again', async () => {
    const bytes = await chart(300, 200).png().toBuffer();
    const { sha256 } = await client.original(bytes, 'backed up.png');
    const path = join(inject('dataFolder'), 'objects.tar');
    await makeBackup(settings.DATABASE_URL, inFile(path), { passphrase: null });
    await objects().remove(sha256);
    const url = await bareDatabase();
    await restoreBackup(url, path, { passphrase: null });
    expect(await isThere(sha256)).toBe(true);
    const opened = await openDatabase(url);
    expect((await blobBytes(opened.whole, sha256))?.equals(bytes)).toBe(true);
    await opened.close();
  });

  test('a store that is named by half is refused', () => {
    const { INKWELL_S3_SECRET: _, ...half } = settings;
    expect(() => s3Settings(half)).toThrow('INKWELL_S3_SECRET');
    expect(() => s3Settings({ ...half, INKWELL_S3_ENDPOINT: undefined })).toThrow('INKWELL_S3_ENDPOINT');
  });
});
