import { MailSchema } from '@inkwell/core/model';
import { sql } from 'drizzle-orm';
import { SMTPServer } from 'smtp-server';
import { afterAll, expect, test } from 'vitest';
import { z } from 'zod';
import { until } from '../testing/programs/client.ts';
import { startStudio } from '../testing/programs/studio.ts';

const taken: string[] = [];
let isAway = true;
const smtp = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS'],
  onMailFrom: (_from, _session, done) => done(isAway ? new Error('Not now.') : null),
  onData(stream, _session, done) {
    let text = '';
    stream.on('data', (piece: Buffer) => (text += piece.toString()));
    stream.on('end', () => {
      taken.push(text);
      done();
    });
  },
});
const port = await new Promise<number>((resolve) => {
  const server = smtp.listen(0, '127.0.0.1', () =>
    resolve(z.object({ port: z.number() }).parse(server.address()).port),
  );
});
const mailing = { INKWELL_MAIL: `smtp://127.0.0.1:${port}`, INKWELL_MAIL_FROM: 'frame@saltmarsh.example' };
afterAll(() => new Promise<void>((resolve) => smtp.close(() => resolve())));
const { owner, invite, door } = await startStudio(mailing);

test('mails go to a mail server where one is named, are tried again, and what they said is not kept', async () => {
  await invite('editor', 'new@saltmarsh.example');
  const mails = () => owner.read(z.array(MailSchema), '/mails');
  await until(mails, ([mail]) => mail?.said?.includes('Not now') ?? false);
  isAway = false;
  // It is tried again in ten seconds; nobody has to wait for them here.
  await door.whole.execute(sql`update work set not_before = now()`);
  const [mail] = await until(mails, ([one]) => one?.state === 'sent');
  expect(mail?.text).toBeNull();
  expect(taken).toHaveLength(1);
  expect(taken[0]).toMatch(/From: frame@saltmarsh\.example[\s\S]*To: new@saltmarsh\.example[\s\S]*invitation#/);
});
