/**
 * Keeps what a version of the program has written into a database, so that every later version shows that it opens it.
 * Run it when a version is released, with DATABASE_URL set: `npm run fixture -w server`.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { shippedStyles } from '@inkwell/core/lettering';
import { readSettings } from '../settings.ts';
import { start } from '../start.ts';
import { Browser } from './browser.ts';
import { Client } from './client.ts';
import { databaseServer, dropDatabase, ownDatabase } from './databases.ts';
import { fixtureFolder, fixturePassword } from './fixtures.ts';
import { chart } from './pictures.ts';

const migrations = readdirSync(join(import.meta.dirname, '..', 'store', 'migrations')).filter((name) =>
  name.endsWith('.sql'),
);
const name = `schema-${migrations.sort().at(-1)?.slice(0, 4)}`;
const data = mkdtempSync(join(tmpdir(), 'inkwell-fixture-'));
const database = await ownDatabase(databaseServer(), 'inkwell_fixture');
const settings = readSettings({
  DATABASE_URL: database,
  INKWELL_DATA: data,
  INKWELL_WEB: data,
  INKWELL_LOOK: 'off',
  PORT: '4700',
});
try {
  // What one person made before there were accounts, and what a studio has made since.
  const alone = await start(settings);
  const client = new Client(alone.address, { 'Sec-Fetch-Site': 'same-origin' });
  const spec = { purpose: 'post' as const, limit: { bytes: 90_000, unit: 'kB' as const }, shownWidths: [320] };
  const places = await client.sheet('Marram Board', [
    { ...spec, formats: ['jpeg'], slug: 'notice', name: 'Notice', width: 200, height: 120 },
    { ...spec, formats: ['jpeg'], slug: 'stamp', name: 'Stamp', width: 120, height: 120 },
  ]);
  const originals = [
    await client.original(await chart(240, 180).png().toBuffer(), 'kites.png'),
    await client.original(await chart(400, 200).jpeg().toBuffer(), 'dunes.jpg'),
  ];
  const project = await client.project('Festival week', originals, places);
  await client.ask('POST', '/letter-styles', { name: 'Ours', style: shippedStyles[0]?.style });
  await client.ask('POST', '/place-sets', { name: 'Every week', placeIds: places });
  await client.ask('POST', '/tokens', { name: 'Night script', may: 'look', days: null });
  await client.deliver(project.id);
  await alone.stop();
  const studio = await start({ ...settings, INKWELL_ACCOUNTS: 'on' });
  await new Browser(studio.address).accept(
    studio.firstLink ?? '',
    'Runa Holm',
    fixturePassword,
    'runa@saltmarsh.example',
  );
  await studio.stop();
  const dump = execFileSync(
    'pg_dump',
    ['--inserts', '--rows-per-insert=50', '--no-owner', '--no-privileges', database],
    {
      maxBuffer: 1e9,
      encoding: 'utf8',
    },
  );
  // What begins with a backslash is for psql alone.
  const statements = dump.replace(/^\\.*$/gm, '');
  writeFileSync(join(fixtureFolder, `${name}.sql.gz`), gzipSync(statements, { level: 9 }));
  console.log(`${name}.sql.gz is in server/testing/fixtures.`);
} finally {
  await dropDatabase(database);
  rmSync(data, { recursive: true });
}
