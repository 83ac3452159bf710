import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { access, mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { text } from 'node:stream/consumers';
import { ManifestSchema, OpenProjectSchema, ProjectSchema } from '@inkwell/core/model';
import { bundled } from '@inkwell/server/bundling/bundle.ts';
import { chart } from '@inkwell/server/testing/pictures/pictures.ts';
import { expect } from '@playwright/test';
import { z } from 'zod';
import { test } from '../support/bench.ts';

const root = join(import.meta.dirname, '..', '..');
const pictures = 20;
const titles = Array.from({ length: pictures }, (_, at) => `Kite no. ${at + 1}`);

test('a week’s work: twenty pictures through the command line, and the same project in the browser', async ({
  page,
  program,
}) => {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-week-'));
  const run = async (...line: string[]) => {
    const child = spawn(process.execPath, [bundled('commandLine'), ...line], {
      cwd: root,
      env: { ...program.env, INKWELL_CALLER: folder },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const [said, [code]] = await Promise.all([text(child.stdout), once(child, 'exit')]);
    return { said, code: z.int().parse(code) };
  };
  try {
    // Monday: the places of every week are a set, with the title of the festival.
    await mkdir(join(folder, 'photos'));
    await Promise.all(
      titles.map(async (_, at) =>
        writeFile(
          join(folder, 'photos', `${at + 1}.jpg`),
          await chart(700 + 10 * at, 520)
            .jpeg()
            .toBuffer(),
        ),
      ),
    );
    const table = titles.map((title, at) => `${at + 1}.jpg,${title}`);
    await writeFile(join(folder, 'titles.csv'), ['picture,title', ...table].join('\n'));
    const ask = async (path: string) => (await page.request.get(`${program.address}/api/v1${path}`)).json();
    const projects = z.array(ProjectSchema).parse(await ask('/projects'));
    const lettering = projects
      .find(({ name }) => name === 'Festival week')
      ?.lettering.filter(({ name }) => name === 'Title')
      .map((item) => ({ ...item, originalIds: null }));
    const placeIds = ['sunpane/square-post', 'candlecast/video-thumbnail'];
    const set = { name: 'Kites of the week', placeIds, lettering };
    expect((await page.request.post(`${program.address}/api/v1/place-sets`, { data: set })).status()).toBe(201);
    const framed = await run(
      'frame',
      'photos',
      '--set',
      'Kites of the week',
      '--series',
      'titles.csv',
      '--out',
      'week',
      '--project',
      'Week 45',
    );
    expect([framed.code, framed.said]).toEqual([0, 'Week 45: 40 files in week.\n']);
    const manifest = ManifestSchema.parse(JSON.parse(await readFile(join(folder, 'week', 'manifest.json'), 'utf8')));
    expect(new Set(manifest.files.flatMap(({ words = [] }) => words))).toEqual(new Set(titles));

    // Tuesday: the same project in the browser; one title is another, and all is looked over.
    await page.goto('/');
    await page.getByRole('link', { name: 'Open Week 45', exact: true }).click();
    await expect(page.getByRole('region', { name: 'Wall' })).toBeVisible();
    await page.getByRole('link', { name: 'Series' }).click();
    const third = page.getByLabel('Title on 3', { exact: true });
    await expect(third).toHaveValue('Kite no. 3');
    await third.fill('The third kite');
    await expect(page.getByRole('status')).toHaveText('Saved');
    await page.getByRole('link', { name: 'Look over' }).click();
    await expect(page.getByRole('grid', { name: 'Frames' }).locator('tbody tr').first()).toBeVisible();
    await expect(page.getByText(`To look over ${2 * pictures}`)).toBeVisible();
    await page.keyboard.press('x');
    await expect(page.getByText('Left out 1')).toBeVisible();
    await expect(page.getByRole('status')).toHaveText('Saved');

    // Wednesday: it goes to another machine as a file; here that is the same one.
    expect((await run('project', 'export', 'Week 45', '--out', 'week-45.zip')).code).toBe(0);
    expect((await run('project', 'import', 'week-45.zip')).said).toContain('Week 45 is here, with 40 frames.');

    // Thursday: what comes late is framed by itself.
    await mkdir(join(folder, 'late'));
    await writeFile(join(folder, 'late', 'moon.jpg'), await chart(900, 640).jpeg().toBuffer());
    await writeFile(join(folder, 'late', 'note.txt'), 'nothing');
    const watch = ['watch', 'late', '--set', 'Kites of the week', '--out', 'late-framed', '--once', '--settle', '0.2'];
    expect((await run(...watch)).code).toBe(2);
    await access(join(folder, 'late', 'refused', 'note.txt.txt'));
    expect((await readdir(join(folder, 'late-framed'))).filter((name) => name.startsWith('moon-'))).toHaveLength(1);

    // Friday: the next week begins with all of this one, but the pictures.
    await page.goto('/');
    await page.getByRole('button', { name: 'Begin the next one after Week 45' }).first().click();
    await expect(page.getByRole('button', { name: 'Rename project Week 46' })).toBeVisible();
    const all = z.array(ProjectSchema).parse(await ask('/projects'));
    const next = OpenProjectSchema.parse(await ask(`/projects/${all.find(({ name }) => name === 'Week 46')?.id}`));
    expect([next.originals, next.usualPlaces]).toEqual([[], expect.arrayContaining(placeIds)]);
  } finally {
    await rm(folder, { recursive: true });
  }
});
