import { type ManifestFile, ManifestSchema } from '@inkwell/core/model';
import { chart } from '@inkwell/server/testing/pictures/pictures.ts';
import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { choose, drag, number, openDemo, settled, stage, test, undoAll, wallFrame } from '../support/bench.ts';
import { filesOf } from '../support/files.ts';

const undo = (page: Page) => page.getByRole('button', { name: 'Undo' });

async function chooseBacking(page: Page, label: string) {
  // The list opens above or below, and may move once before it stands.
  await expect(async () => {
    await page.getByLabel('Backing').click();
    await page.locator(`.ant-select-item[title="${label}"]`).click();
    await expect(page.getByRole('region', { name: 'Reading' })).toContainText(label, { timeout: 2000 });
  }).toPass();
}

/** A project with one picture of one's own at three places, opened on the bench. */
async function ownProject(page: Page) {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  const buffer = await chart(1800, 1200).png().toBuffer();
  await page.getByTestId('file-input').setInputFiles({ name: 'chart.png', mimeType: 'image/png', buffer });
  await expect(page.getByText('1800 × 1200 px')).toBeVisible();
  // What somebody else may see in a chart is not what this is about.
  const [, id] = /projects\/([^/]+)/.exec(page.url()) ?? [];
  const data = { version: 1, change: { composing: 'marks' } };
  expect((await page.request.patch(`/api/v1/projects/${id}/settings`, { data })).status()).toBe(200);
  // The page has still got the project as it was before.
  await page.reload();
  for (const name of ['Sunpane Square post', 'Sunpane Story', 'Pipwire Header'])
    await page.getByRole('checkbox', { name, exact: true }).check();
  await page.getByRole('button', { name: 'Frame them' }).click();
  await expect(wallFrame(page, 'sunpane/story')).toBeVisible();
}

/** The colour that the chart has at a point of it. */
const chartAt = (x: number, y: number) => [
  (255 * (x - 0.5)) / 1800,
  (255 * (y - 0.5)) / 1200,
  128 + 60 * Math.sin((x - 0.5) / 37) * Math.cos((y - 0.5) / 23),
];

/** Compares a grid of a file's pixels with the chart at the points that turn and mirror, worked out here, lead to. */
async function expectFramed(data: Buffer | undefined, { window, width, height }: ManifestFile, margin: number) {
  const raw = await sharp(data).removeAlpha().raw().toBuffer();
  const scale = window.width / width;
  const angle = (-window.turn * Math.PI) / 180;
  let compared = 0;
  for (let y = 20; y < height; y += 60) {
    for (let x = 20; x < width; x += 60) {
      const right = (x + 0.5 - width / 2) * scale * (window.mirror ? -1 : 1);
      const down = (y + 0.5 - height / 2) * scale;
      const at = {
        x: window.left + window.width / 2 + right * Math.cos(angle) - down * Math.sin(angle),
        y: window.top + window.height / 2 + right * Math.sin(angle) + down * Math.cos(angle),
      };
      if (Math.min(at.x, 1800 - at.x, at.y, 1200 - at.y) < margin) continue;
      compared += 1;
      for (const [channel, value] of chartAt(at.x, at.y).entries())
        expect(Math.abs((raw[(y * width + x) * 3 + channel] ?? 0) - value)).toBeLessThan(12);
    }
  }
  expect(compared).toBeGreaterThan(60);
}

test('marks compose every frame; straightened, mirrored and backed, the files come out as they were framed', async ({
  page,
}) => {
  await ownProject(page);
  await choose(page, 'sunpane/square-post');
  await expect.poll(() => number(page, 'Left')).toBe(300);

  // Drawn round something far left: the square and the story come to it, the header still shows it.
  const at = await stage(page);
  await page.getByText('Keep', { exact: true }).click();
  await drag(page, at(60, 500), at(360, 800));
  const mark = page.getByRole('button', { name: 'Keep 1, must be kept' });
  await expect(mark).toHaveAttribute('aria-pressed', 'true');
  // A press holds, though the picture that it began on is replaced by its proof meanwhile.
  await wallFrame(page, 'sunpane/story').locator('.frame-picture').hover();
  await page.mouse.down();
  await settled(page, 'sunpane/story');
  await page.mouse.up();
  await expect(wallFrame(page, 'sunpane/story')).toHaveAttribute('aria-pressed', 'true');
  await choose(page, 'sunpane/square-post');
  await expect.poll(() => number(page, 'Left')).toBeLessThan(60);
  await page.getByText('Avoid', { exact: true }).click();
  await drag(page, at(820, 500), at(980, 800));
  await expect.poll(async () => (await number(page, 'Left')) + (await number(page, 'Width'))).toBeLessThan(822);
  await expect(page.getByTestId('placement')).toHaveText('composed');
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('Enlarged');
  // Once it is deleted, the frame opens again.
  await page.getByRole('button', { name: 'Avoid 1, to be avoided' }).press('Delete');
  await expect.poll(() => number(page, 'Width')).toBeGreaterThan(850);

  await page.getByLabel('Straighten in °').fill('3.5');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Mirror' }).click();
  await expect(page.getByTestId('placement')).toHaveText('composed');

  await choose(page, 'sunpane/story');
  await expect(page.getByRole('region', { name: 'Reading' })).toContainText('Story');
  const left = await number(page, 'Left');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByTestId('placement')).toHaveText('moved by hand');
  await page.getByRole('button', { name: 'Compose Sunpane again' }).click();
  await expect(page.getByTestId('placement')).toHaveText('composed');
  await undo(page).click();
  await expect(page.getByTestId('placement')).toHaveText('moved by hand');
  await page.locator('body').press('c');
  await expect(page.getByTestId('placement')).toHaveText('composed');
  await expect.poll(() => number(page, 'Left')).toBeCloseTo(left, 1);

  await choose(page, 'pipwire/header');
  await chooseBacking(page, 'Soft echo');
  await expect(page.getByTestId('placement')).toHaveText('shown whole');
  expect(await number(page, 'Left')).toBe(-900);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Keep 1, must be kept' })).toBeVisible();
  for (const id of ['sunpane/square-post', 'sunpane/story', 'pipwire/header']) await settled(page, id);

  await page.getByRole('link', { name: 'Deliver' }).click();
  await page.getByRole('button', { name: 'Deliver 3 files' }).click();
  const downloading = page.waitForEvent('download');
  await page.getByRole('link', { name: /Download the archive/ }).click();
  const files = await filesOf(await downloading);
  const manifest = ManifestSchema.parse(JSON.parse(files.get('manifest.json')?.toString() ?? ''));
  const line = (place: string) => manifest.files.find((one) => one.place === place) as ManifestFile;
  expect(line('Square post').window).toMatchObject({ turn: 3.5, mirror: true });
  for (const place of ['Square post', 'Story']) {
    const { window } = line(place);
    expect(window.left).toBeLessThanOrEqual(60);
    await expectFramed(files.get(line(place).file), line(place), 3);
  }
  await expectFramed(files.get(line('Header').file), line('Header'), 12);

  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await undoAll(page);
  await choose(page, 'sunpane/square-post');
  await expect.poll(() => number(page, 'Left')).toBe(300);
  await expect(page.getByRole('button', { name: 'Keep 1, must be kept' })).toBeHidden();
});

test('the close-up moves the picture under the frame, and shows it at the audience’s sizes', async ({ page }) => {
  await openDemo(page);
  await choose(page, 'candlecast/video-thumbnail');
  // Before all that was seen has come it is composed otherwise.
  await settled(page, 'candlecast/video-thumbnail');
  await expect(page.getByTestId('placement')).toHaveText('composed');
  const [left, width] = [await number(page, 'Left'), await number(page, 'Width')];
  await page.keyboard.press('Enter');
  const close = page.getByRole('region', { name: 'Close-up of Candlecast Video thumbnail' });
  await expect(close.getByRole('figure')).toHaveCount(2);
  await expect(close).toContainText('320 px wide');
  await expect(page).toHaveURL(/view=close/);
  await close.getByText('Diagonals').click();

  const box = await page.getByTestId('close-up').boundingBox();
  if (!box) throw new Error('no close-up');
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await expect(undo(page)).toBeDisabled();
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.wheel(0, -300);
  await expect.poll(() => number(page, 'Width')).toBeLessThan(width * 0.8);
  // The wheel rests: what it did is a step.
  await expect(undo(page)).toBeEnabled();
  const tight = await number(page, 'Left');
  // Alt suspends the snapping, so that the distance is the hand’s.
  await page.keyboard.down('Alt');
  await drag(page, middle, { x: middle.x - box.width / 10, y: middle.y });
  await page.keyboard.up('Alt');
  // The picture follows the hand to the left, so the window goes right, by a tenth of itself.
  await expect.poll(() => number(page, 'Left')).toBeCloseTo(tight + (await number(page, 'Width')) / 10, -1);
  await page.keyboard.press('Escape');
  await expect(close).toBeHidden();
  await undoAll(page);
  await expect.poll(() => number(page, 'Left')).toBeCloseTo(left, 1);
});

test('marks are made, moved, named and weighed with the keyboard alone', async ({ page }) => {
  await ownProject(page);
  await wallFrame(page, 'sunpane/square-post').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  const add = page.getByRole('button', { name: 'Add keep' });
  await add.press('Enter');
  await expect(page.getByText('Draw it on the picture.')).toBeVisible();
  await add.press('Enter');
  await page.getByRole('button', { name: 'More of the mark' }).press('Enter');
  const chip = page.getByRole('button', { name: /^Keep 1/ });
  await chip.focus();
  for (let presses = 0; presses < 60; presses += 1) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByLabel('Keep 1: Left in px')).toHaveValue('1260');
  await expect(page.getByLabel('Keep 1: Height in px')).toHaveValue('249');
  await expect.poll(() => number(page, 'Left')).toBeGreaterThan(400);
  await page.getByLabel('Name of the mark').fill('The far kite');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'The far kite, must be kept' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(chip).toBeVisible();
  await undoAll(page);
  await expect(chip).toBeHidden();
});

test('a poster is trimmed to its content, which every frame then shows; undo brings the margin back', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Festival poster' }).click();
  await choose(page, 'sunpane/portrait-post');
  await page.getByRole('button', { name: 'Reset' }).click();
  await expect.poll(() => number(page, 'Width')).toBeGreaterThan(2900);
  await page.getByRole('button', { name: 'Trim …' }).click();
  const panel = page.getByRole('region', { name: 'Trim' });
  const width = async () => Number(await panel.getByLabel('Trim: Width in px').inputValue());
  // Its body first, which has no shadow; all that lies on the margin is one press away.
  await expect.poll(width).toBeLessThan(2400);
  await panel.getByText('All of it', { exact: true }).click();
  await expect.poll(width).toBeGreaterThan(2400);
  await expect.poll(width).toBeLessThan(2600);
  const withShadow = await width();
  await panel.getByRole('checkbox', { name: 'Shadow belongs to it' }).uncheck();
  await expect.poll(width).toBeLessThan(withShadow - 40);
  await panel.getByRole('button', { name: 'Trim', exact: true }).click();
  await expect(panel).toBeHidden();
  await expect.poll(() => number(page, 'Width')).toBeLessThan(2400);
  await settled(page, 'sunpane/portrait-post');
  await undoAll(page);
  await expect.poll(() => number(page, 'Width')).toBe(2720);
});
