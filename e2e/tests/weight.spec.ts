import { readFile } from 'node:fs/promises';
import { ManifestSchema } from '@inkwell/core/model';
import type { Raster } from '@inkwell/core/planes';
import { similarityOf } from '@inkwell/core/seeing';
import { unzip } from '@inkwell/server/testing/unzip.ts';
import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { choose, openDemo, test, undoAll } from '../support/bench.ts';
import { faults } from '../support/faults.ts';

const place = 'quillpost/inline-picture';
const panel = (page: Page) => page.getByRole('complementary', { name: 'Weight' });
const file = (page: Page) => panel(page).getByRole('region', { name: 'This file' });
const compare = (page: Page) => page.getByRole('region', { name: 'Encodings' });

async function pick(page: Page, select: string, option: string) {
  await page.getByRole('combobox', { name: select }).click();
  await page.locator('.ant-select-dropdown:visible').getByText(option, { exact: true }).click();
}

async function rasterOf(data: Buffer): Promise<Raster> {
  const { data: pixels, info } = await sharp(data).toColourspace('srgb').raw().toBuffer({ resolveWithObject: true });
  return { data: pixels, width: info.width, height: info.height, channels: info.channels as Raster['channels'] };
}

test('a poster is too heavy as PNG; a way out is taken, compared, delivered, and is what the manifest says', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByRole('button', { name: 'Add Festival poster' }).click();
  await page.getByRole('checkbox', { name: 'Quillpost Inline picture', exact: true }).check();
  await expect(page.getByText('1 frame in this project.')).toBeVisible();
  await page.getByRole('button', { name: 'Frame them' }).click();
  await choose(page, place);
  await page.locator('body').press('w');
  await pick(page, 'Format of the file', 'PNG');
  await expect(file(page)).toContainText('not delivered like this');
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('takes 500 kB less headroom');

  // Every way out is measured; those that are good come first, and what is too heavy as well cannot be pressed.
  const ways = panel(page).getByRole('region', { name: 'Ways to make it fit' });
  await expect(ways).toContainText('WebP');
  await expect(ways.getByText('still being measured')).toHaveCount(0);
  const offered = await ways.getByRole('listitem').allTextContents();
  expect(offered.length).toBeGreaterThan(4);
  const left = offered.map((text) => Number(/([\d.]+) of 100/.exec(text)?.[1] ?? 0));
  const good = left.filter((similarity) => similarity >= 92);
  expect(left.slice(0, good.length)).toEqual(good);
  const webp = ways.locator('[data-way="webp"]');
  const promised = /(\d+) kB/.exec((await webp.textContent()) ?? '')?.[1];
  await webp.getByRole('button', { name: 'WebP' }).click();
  await expect(file(page)).toContainText('WebP, quality');
  await expect(file(page)).toContainText(`${promised} kB`);
  await expect(file(page)).not.toContainText('not delivered like this');

  // Points of the curve come in; a hand that drags the quality is followed by the true bytes.
  const curve = panel(page).getByRole('figure', { name: 'Bytes over quality' });
  await expect.poll(async () => Number(await curve.getAttribute('data-points'))).toBeGreaterThan(10);
  const tried = panel(page).getByRole('region', { name: 'Tried by hand' });
  const slider = tried.getByRole('slider', { name: 'Quality that is tried' });
  const bytesAt = async (quality: string) => {
    const output = tried.locator('output');
    await expect(output).toHaveAttribute('data-quality', quality);
    return Number(/([\d,]+) bytes/.exec((await output.textContent()) ?? '')?.[1]?.replaceAll(',', ''));
  };
  await slider.focus();
  await slider.press('Home');
  const lightest = await bytesAt('5');
  await slider.press('End');
  expect(await bytesAt('95')).toBeGreaterThan(3 * lightest);
  const view = compare(page).locator('[data-showing]').first();
  await compare(page).getByRole('region', { name: 'Picture; arrow keys move it' }).focus();
  await page.keyboard.down('p');
  await expect(view).toHaveAttribute('data-showing', 'uncompressed');
  await page.keyboard.up('p');
  await expect(view).toHaveAttribute('data-showing', 'webp 95');
  await compare(page).getByText('Difference', { exact: true }).click();
  await expect(compare(page).locator('canvas[data-ready="true"]')).toBeVisible();

  // What is delivered is the very file that was measured, and the manifest's similarity is that of its bytes.
  await compare(page).getByText('Flick', { exact: true }).click();
  const uncompressed = await compare(page).locator('img[alt="Uncompressed"]').getAttribute('src');
  const reference = await (await page.request.get(uncompressed ?? '')).body();
  await page.getByRole('link', { name: 'Files' }).click();
  const row = page.getByRole('row', { name: /Festival poster, Quillpost Inline picture/ });
  await expect(row).toContainText('Fine');
  await expect(row).toContainText('500 kB');
  await page.getByRole('link', { name: 'Deliver' }).click();
  await page.getByRole('button', { name: 'Deliver 1 file' }).click();
  const link = page.getByRole('link', { name: /Download the archive/ });
  await link.waitFor();
  const downloading = page.waitForEvent('download');
  await link.click();
  const archive = await unzip(await readFile(await (await downloading).path()));
  const manifest = ManifestSchema.parse(JSON.parse(archive.get('manifest.json')?.toString('utf8') ?? ''));
  const [line] = manifest.files;
  const data = archive.get(line?.file ?? '');
  if (!line || !data) throw new Error('The file is not in the archive.');
  expect(line).toMatchObject({ format: 'webp', bytes: data.length });
  expect(data.length).toBeLessThanOrEqual(485_000);
  expect(Math.round(data.length / 1000)).toBe(Number(promised));
  expect((await sharp(data).metadata()).format).toBe('webp');
  const again = similarityOf(await rasterOf(reference), await rasterOf(data));
  expect(again.overall).toBe(line.similarity);
  expect(again.worst).toEqual(line.worstSpot);
});

test('the best upload of a frame is found, used for all of its place, and forgotten', async ({ page }) => {
  await openDemo(page);
  await choose(page, 'pipwire/profile-picture');
  await page.locator('body').press('w');
  const shown = panel(page).getByRole('region', { name: 'As the network shows it' });
  await expect(shown).toContainText('Pipwire keeps the dimensions of this file and encodes it as JPEG 74.');
  await shown.getByRole('button', { name: 'Find the best upload' }).click();
  const found = shown.getByRole('table', { name: 'What is left where it is shown' });
  await expect(found.getByRole('row', { name: /in full/ })).toContainText(/9\d\.\d/);
  expect.soft(await faults(page), 'best upload').toEqual([]);
  const bytes = async () => Number(/^[\d.]+/.exec((await file(page).textContent()) ?? '')?.[0]);
  const before = await bytes();
  await shown.getByRole('button', { name: /^Use it for all/ }).click();
  await expect(shown).toContainText('Uploaded as was learned for Profile picture (on “Five flyers”');
  await expect.poll(bytes).not.toBe(before);
  // Dimensions can be chosen by hand as well; the file has them.
  await pick(page, 'Dimensions of the file', '512 × 512 px, of the place');
  await expect(shown).toContainText('Learned for Profile picture');
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await undoAll(page);
  await page.getByRole('link', { name: 'Spec book' }).click();
  await page.getByRole('link', { name: /^Pipwire/ }).click();
  await page.getByRole('button', { name: 'Forget how Profile picture is uploaded' }).click();
  await expect(page.getByRole('button', { name: 'Forget how Profile picture is uploaded' })).toHaveCount(0);
});
