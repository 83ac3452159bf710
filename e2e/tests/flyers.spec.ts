import { join } from 'node:path';
import { ManifestSchema } from '@inkwell/core/model';
import { difference } from '@inkwell/server/testing/pictures/pictures.ts';
import { expect, type Page } from '@playwright/test';
import sharp, { type Sharp } from 'sharp';
import { choose, drag, number, settled, stage, test, undoAll, wallFrame } from '../support/bench.ts';
import { filesOf } from '../support/files.ts';
import { art } from '../support/program.ts';

const painted = (name: string) => join(art, name);
const places = {
  square: 'sunpane/square-post',
  wide: 'sunpane/wide-post',
  round: 'pipwire/profile-picture',
  header: 'pipwire/header',
};

/** Chooses from a list of the reading, which opens above or below and may move once before it stands. */
async function pick(page: Page, list: string, label: string) {
  await expect(async () => {
    await page.getByLabel(list, { exact: true }).click();
    await page.locator(`.ant-select-dropdown:visible .ant-select-item[title="${label}"]`).click();
    await expect(page.getByRole('region', { name: 'Reading' })).toContainText(label, { timeout: 2000 });
  }).toPass();
}
const reading = (page: Page) => page.getByRole('region', { name: 'Reading' });

test('two faces kept and a litter bin avoided: every place composes; tightened, straightened, ringed and backed by hand, all is delivered', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByTestId('file-input').setInputFiles([painted('five-flyers.jpg'), painted('kite-maker.jpg')]);
  await expect(page.getByRole('checkbox', { name: /^Give places to/ })).toHaveCount(2);
  for (const name of ['Sunpane Square post', 'Sunpane Wide post', 'Pipwire Header', 'Pipwire Profile picture'])
    await page.getByRole('checkbox', { name, exact: true }).check();
  await page.getByRole('button', { name: 'New place …' }).click();
  const form = page.getByRole('region', { name: 'New place' });
  await form.getByLabel('Name of the place').fill('Blog header');
  await form.getByLabel('Height in px').fill('8.5');
  await form.getByRole('button', { name: 'Add the place' }).click();
  await expect(form.getByRole('alert')).toContainText('from 8 to 20,000');
  await form.getByLabel('Width in px').fill('1237');
  await form.getByLabel('Height in px').fill('411');
  await form.getByRole('button', { name: 'Add the place' }).click();
  await expect(page.getByText('10 frames in this project.')).toBeVisible();
  await page.getByRole('button', { name: 'Frame them' }).click();

  await page.getByRole('tab', { name: 'five-flyers' }).click();
  await choose(page, places.square);
  const before = await number(page, 'Left');
  const at = await stage(page);
  for (const [left, top] of [
    [2820, 1820],
    [3870, 1920],
  ] as const) {
    await page.getByTitle('Draw around what must be in every frame').click();
    await drag(page, at(left, top), at(left + 290, top + 430));
  }
  await page.getByTitle('Draw around what should stay out').click();
  await drag(page, at(5570, 2920), at(5880, 3520));
  await expect(page.getByRole('button', { name: 'Keep 2, must be kept' })).toBeVisible();
  for (const placeId of Object.values(places)) {
    await choose(page, placeId);
    await expect(page.getByTestId('placement')).toHaveText('composed');
    const [left, top, width, height] = await Promise.all(
      (['Left', 'Top', 'Width', 'Height'] as const).map((label) => number(page, label)),
    );
    expect(left).toBeLessThanOrEqual(2821);
    expect((left ?? 0) + (width ?? 0)).toBeGreaterThanOrEqual(4159);
    expect(top).toBeLessThanOrEqual(1821);
    // The bin is to the right of what is shown, or below it.
    expect((left ?? 0) + (width ?? 0) < 5571 || (top ?? 0) + (height ?? 0) < 2921).toBe(true);
    await expect(page.getByRole('list', { name: 'Findings' })).not.toContainText('should stay out');
  }

  await choose(page, places.square);
  const width = await number(page, 'Width');
  for (let presses = 0; presses < 4; presses += 1) await page.locator('body').press('+');
  await expect.poll(() => number(page, 'Width')).toBeCloseTo(width * 0.97 ** 4, 0);
  await expect(page.getByTestId('placement')).toHaveText('moved by hand');
  await choose(page, places.wide);
  await page.getByTitle(/^Draw along a horizon/).click();
  await drag(page, at(1000, 2600), at(5000, 2460));
  await expect(page.getByLabel('Straighten in °')).toHaveValue('2');

  await choose(page, places.round);
  await pick(page, 'Ring', 'Ring outside the picture');
  await page.getByLabel('Ring: Width in px').fill('24');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Colour of the ring/ }).click();
  const panel = page.getByRole('region', { name: 'Colour of the ring' });
  await expect(panel.getByRole('button', { name: /^Use #/ })).toHaveCount(5);
  const typed = panel.getByLabel('Colour of the ring as a number');
  const first = await typed.inputValue();
  const picture = panel.getByRole('button', { name: /^Take a colour/ });
  const box = await picture.boundingBox();
  if (!box) throw new Error('no picture');
  await picture.click({ position: { x: box.width * 0.5, y: box.height * 0.03 } });
  await expect(typed).not.toHaveValue(first);
  const taken = await typed.inputValue();
  await page.keyboard.press('Escape');
  await pick(page, 'Delivered as', 'Cut out, transparent around it');
  await expect(page.getByLabel('Ring: Width in px')).toHaveValue('24');
  await page.reload();
  await expect(page.getByRole('button', { name: `Colour of the ring: ${taken}` })).toBeVisible();

  await page.getByRole('tab', { name: 'kite-maker' }).click();
  await choose(page, places.header);
  await pick(page, 'Backing', 'Soft echo');
  await expect(page.getByTestId('placement')).toHaveText('shown whole');
  await settled(page, places.header);

  await page.getByRole('link', { name: 'Deliver' }).click();
  await page.getByRole('button', { name: 'Deliver 10 files' }).click();
  const downloading = page.waitForEvent('download');
  await page.getByRole('link', { name: /Download the archive/ }).click();
  const files = await filesOf(await downloading);
  const manifest = ManifestSchema.parse(JSON.parse(files.get('manifest.json')?.toString() ?? ''));
  expect(manifest.leftOut).toEqual([]);
  const fileAt = (place: string, original: string) => {
    const line = manifest.files.find((one) => one.place === place && one.original === original);
    const data = line && files.get(line.file);
    if (!line || !data) throw new Error(`${place} is missing`);
    return { line, data };
  };
  const square = fileAt('Square post', 'five-flyers');
  const cut = {
    left: Math.round(square.line.window.left),
    top: Math.round(square.line.window.top),
    width: Math.round(square.line.window.width),
    height: Math.round(square.line.window.height),
  };
  // Compared at a third of the side, where the grain that the encoding changes is averaged away.
  const small = (picture: Sharp) => picture.resize(360, 360, { fit: 'fill' });
  const independent = small(sharp(painted('five-flyers.jpg')).extract(cut));
  expect(await difference(small(sharp(square.data)), independent)).toBeLessThan(1.5);
  expect(fileAt('Wide post', 'five-flyers').line.window.turn).toBe(2);
  for (const original of ['five-flyers', 'kite-maker'])
    expect(await sharp(fileAt('Blog header', original).data).metadata()).toMatchObject({ width: 1237, height: 411 });

  const ringed = await sharp(fileAt('Profile picture', 'five-flyers').data).raw().toBuffer({ resolveWithObject: true });
  expect(ringed.info).toMatchObject({ width: 512, height: 512, channels: 4 });
  const pixel = (x: number, y: number) =>
    ringed.data.subarray((y * 512 + x) * 4, (y * 512 + x) * 4 + 4).toString('hex');
  expect(pixel(2, 2).slice(6)).toBe('00');
  expect(pixel(256, 12)).toBe(`${taken.slice(1)}ff`);
  expect(pixel(500, 256)).toBe(`${taken.slice(1)}ff`);
  expect(pixel(256, 300)).not.toBe(`${taken.slice(1)}ff`);
  // The colour is the one of the original at the point that was clicked, to a level or two of its encoding's texture.
  const { width: artWidth = 0, height: artHeight = 0 } = await sharp(painted('five-flyers.jpg')).metadata();
  const around = await sharp(painted('five-flyers.jpg'))
    .extract({ left: Math.round(artWidth * 0.5) - 20, top: Math.round(artHeight * 0.03) - 20, width: 40, height: 40 })
    .stats();
  for (const [channel, { min, max }] of around.channels.entries()) {
    const value = Number.parseInt(taken.slice(1 + 2 * channel, 3 + 2 * channel), 16);
    expect(value).toBeGreaterThanOrEqual(min - 2);
    expect(value).toBeLessThanOrEqual(max + 2);
  }

  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page.getByRole('tab', { name: 'five-flyers' }).click();
  await undoAll(page);
  await choose(page, places.square);
  await expect.poll(() => number(page, 'Left')).toBe(before);
  await expect(page.getByRole('button', { name: 'Keep 1, must be kept' })).toBeHidden();
});

test('a stretch happens only by name, says how much it distorts, and stays a finding until it is undone', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Festival week', exact: true }).click();
  await choose(page, 'hearthring/cover');
  // Until all is loaded that a frame is composed from, it may move once more.
  await settled(page, 'hearthring/cover');
  const width = await number(page, 'Width');
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: /^Stretch to show the whole picture: drawn \d+ % wider/ }).click();
  await expect.poll(() => number(page, 'Width')).toBe(6000);
  expect(await number(page, 'Height')).toBe(4000);
  await expect(reading(page).getByRole('list', { name: 'Findings' })).toContainText(/Stretched: .* % wider than it is/);
  await settled(page, 'hearthring/cover');
  await reading(page).getByRole('button', { name: 'Undo the stretch' }).click();
  await expect(page.getByRole('list', { name: 'Findings' })).not.toContainText('Stretched');
  await undoAll(page);
  await expect.poll(() => number(page, 'Width')).toBeCloseTo(width, 1);
});

test('on demand the wall shows every frame at the widths at which it is shown', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Festival week', exact: true }).click();
  await page.getByText('As shown', { exact: true }).click();
  const frame = wallFrame(page, 'candlecast/video-thumbnail');
  await expect(frame.locator('.frame-picture')).toHaveCount(2);
  const widths = await frame.locator('.frame-picture').evaluateAll((all) => all.map((one) => one.clientWidth));
  expect(widths).toEqual([320, 160]);
  await expect(page).toHaveURL(/scale=shown/);
});
