import { readFile } from 'node:fs/promises';
import { FinishFileSchema } from '@inkwell/core/model';
import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { choose, test } from '../support/bench.ts';

const place = 'pipwire/single-image';
const panel = (page: Page) => page.getByRole('complementary', { name: 'Finish' });
const compare = (page: Page) => page.getByRole('region', { name: 'Plain and finished' });

async function pick(page: Page, select: string, option: string) {
  await page.getByRole('combobox', { name: select }).click();
  await page.locator('.ant-select-dropdown:visible').getByText(option, { exact: true }).click();
}

/** One figure of the finished picture, once it has been measured. */
async function figure(page: Page, name: string): Promise<number> {
  await expect(panel(page).getByRole('table', { name: 'Figures' })).toHaveAttribute('data-measured', 'true');
  const row = panel(page).getByRole('row', { name: new RegExp(`^${name}`) });
  return Number.parseFloat((await row.getByRole('cell').last().textContent()) ?? '');
}

test('a scan becomes white paper with dark lines; a finish is made, run over a project, blended for one picture, exported and imported', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  for (const name of ['Kite plan', 'Kite maker']) await page.getByRole('button', { name: `Add ${name}` }).click();
  for (const name of ['Pipwire Single image', 'Hearthring Link image'])
    await page.getByRole('checkbox', { name, exact: true }).check();
  await expect(page.getByText('4 frames in this project.')).toBeVisible();
  await page.getByRole('button', { name: 'Frame them' }).click();
  await page.getByRole('tab', { name: 'Kite plan' }).click();
  await choose(page, place);

  await page.locator('body').press('f');
  // The demo has chosen it already; without it the plan is as grey as its paper.
  await pick(page, 'Finish of this picture', 'As the project: Plain');
  await expect(panel(page)).toContainText('A plain picture: there is nothing to compare.');
  await pick(page, 'Finish of this picture', 'Scan');
  expect(await figure(page, 'White')).toBeGreaterThan(75);
  expect(await figure(page, 'Luminance')).toBeGreaterThan(235);
  const finished = compare(page).getByRole('img', { name: 'Finished' });
  const src = await finished.getAttribute('src');
  const { data } = await sharp(await (await page.request.get(src ?? '')).body())
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const sorted = Uint8Array.from(data).sort();
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))] ?? -1;
  expect(at(0.5)).toBe(255);
  expect(at(0.01)).toBeLessThan(110);

  // The other picture goes along with the project: a finish of one's own is made from one that ships.
  await page.getByRole('button', { name: 'Back' }).first().click();
  await page.getByRole('tab', { name: 'Kite maker' }).click();
  await choose(page, place);
  await page.locator('body').press('f');
  await pick(page, 'Finish of the project', 'Crisp');
  await panel(page).getByRole('button', { name: 'Make my own copy' }).click();
  await expect(panel(page)).toContainText('A change touches 2 frames here.');
  await panel(page).getByRole('button', { name: 'Rename finish My crisp' }).click();
  await panel(page).getByRole('textbox', { name: 'Name of finish' }).fill('Dune light');
  await page.keyboard.press('Enter');
  const before = await figure(page, 'Acutance');
  const amount = panel(page).getByRole('spinbutton', { name: 'First amount' });
  await amount.fill('2.4');
  await amount.press('Enter');
  await expect.poll(() => figure(page, 'Acutance')).toBeGreaterThan(before * 1.02);

  // Plain while P is held; the divider and the mark that is looked at move together.
  const view = compare(page).locator('[data-showing]').first();
  await compare(page).getByRole('region', { name: 'Picture; arrow keys move it' }).focus();
  await page.keyboard.down('p');
  await expect(view).toHaveAttribute('data-showing', 'plain');
  await page.keyboard.up('p');
  await expect(view).toHaveAttribute('data-showing', 'finished');
  await compare(page).getByText('Divider').click();
  const divider = compare(page).getByRole('slider');
  await divider.press('ArrowRight');
  await expect(divider).toHaveAttribute('aria-valuenow', '52');

  // While a hand drags, the worker shows the part that is looked at; the server's picture takes over.
  const slider = panel(page).getByRole('slider', { name: 'Second pass' });
  const box = await slider.boundingBox();
  if (!box) throw new Error('no slider');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 40, box.y + box.height / 2, { steps: 3 });
  await expect(compare(page).locator('canvas')).toHaveAttribute('data-live', 'true');
  await page.mouse.up();
  await expect(panel(page)).toContainText('for this frame only');
  await expect(compare(page).locator('canvas')).toHaveAttribute('data-live', 'false');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(panel(page)).toContainText('the blend of Dune light');

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    panel(page).getByRole('link', { name: 'Export' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('dune-light.finish.json');
  const path = await download.path();
  const file = FinishFileSchema.parse(JSON.parse(await readFile(path, 'utf8')));
  expect(file).toMatchObject({ name: 'Dune light', treatment: { sharpen: { amount: 2.4 } } });
  const chooser = panel(page).getByLabel('A finish to import');
  await chooser.setInputFiles({ name: 'poem.json', mimeType: 'application/json', buffer: Buffer.from('{"kite":1}') });
  await expect(page.getByText('poem.json is not a finish')).toBeVisible();
  const wind = { ...file, name: 'Dune wind' };
  await chooser.setInputFiles({
    name: 'wind.finish.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(wind)),
  });
  await expect(panel(page).getByRole('button', { name: 'Rename finish Dune wind' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(panel(page).getByRole('button', { name: 'Rename finish Dune light' })).toBeVisible();
});
