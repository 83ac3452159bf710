import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { start } from '../start.ts';
import { Browser } from '../testing/programs/browser.ts';
import { until } from '../testing/programs/client.ts';
import { testSettings } from '../testing/programs/program.ts';

test('the log says what happened, and nothing of people, pictures and what opens doors', async () => {
  const settings = { ...(await testSettings()), INKWELL_ACCOUNTS: 'on' as const, LOG_LEVEL: 'info' as const };
  const running = await start(settings);
  const typed = {
    password: 'quilted lantern over marsh',
    email: 'runa@saltmarsh.example',
    name: 'Runa Holm',
    wrong: 'a slip of the tongue',
    project: 'The wedding of the neighbours',
    page: 'What the guests do not know yet',
  };
  try {
    const runa = new Browser(running.address);
    await runa.accept(z.string().parse(running.firstLink), typed.name, typed.password, typed.email);
    await runa.signIn(typed.email, typed.wrong);
    await runa.ask('POST', '/projects', { name: typed.project });
    await runa.ask('POST', `/projects?about=${encodeURIComponent(typed.page)}`, { name: 7 });
    // A statement fails that has something of somebody's in its values.
    await running.door.whole.execute(sql`alter table projects rename to projects_away`);
    expect((await runa.ask('POST', '/projects', { name: typed.page })).status).toBe(500);
    const log = await until(
      () => readFile(join(settings.INKWELL_DATA, 'inkwell.log'), 'utf8'),
      (text) => text.includes('request failed'),
    );
    expect(log).toContain('"path":"/api/v1/door/sign-in"');
    expect(log).toContain(String.raw`"query":"insert into \"projects\"`);
    expect(log).toContain('"code":"42P01"');
    const cookie = decodeURIComponent(runa.cookie ?? '')
      .split('s:')[1]
      ?.split('.')[0];
    for (const said of [...Object.values(typed), encodeURIComponent(typed.page), cookie, '127.0.0.1']) {
      expect(log).not.toContain(said);
    }
  } finally {
    await running.door.whole.execute(sql`alter table projects_away rename to projects`);
    await running.stop();
  }
});
