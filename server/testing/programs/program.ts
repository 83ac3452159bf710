import { mkdtempSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, inject } from 'vitest';
import { readSettings, type Settings } from '../../settings/settings.ts';
import { start } from '../../start.ts';
import { ownDatabase } from '../databases.ts';
import { Client } from './client.ts';

/** A database of its own, with nothing in it: no table either. */
export const bareDatabase = (): Promise<string> => ownDatabase(inject('databaseUrl'), inject('databasePrefix'));

/** Settings with a folder and a database that no other test has. Pictures are only looked at where a test is about that. */
export async function testSettings(look: Settings['INKWELL_LOOK'] = 'off'): Promise<Settings> {
  const data = mkdtempSync(join(inject('dataFolder'), 'data-'));
  return readSettings({
    DATABASE_URL: await ownDatabase(inject('databaseUrl'), inject('databasePrefix'), inject('emptyDatabase')),
    INKWELL_DATA: data,
    INKWELL_WEB: data,
    PORT: '4700',
    INKWELL_LOOK: look,
    LOG_LEVEL: 'warn',
  });
}

/** The whole program on a free port, stopped when the tests of the file are over. */
export async function startProgram(look: Settings['INKWELL_LOOK'] = 'off') {
  const settings = await testSettings(look);
  const running = await start(settings);
  afterAll(() => running.stop());
  return { ...running, settings, client: new Client(running.address) };
}
