import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { openDemo, test, wallFrame } from '../support/bench.ts';

const field = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true });
/** Types a number into a field and leaves it with Enter. */
async function type(page: Page, name: string, value: string): Promise<void> {
  await field(page, name).fill(value);
  await field(page, name).press('Enter');
}

/** Ticks give places to the five flyers alone. */
async function onlyFlyers(page: Page): Promise<void> {
  for (const name of ['Dune panorama', 'Kite maker', 'Festival poster', 'Kite plan', 'Snapshot'])
    await page.getByRole('checkbox', { name: `Give places to ${name}` }).uncheck();
}

test('a shipped sheet is copied, named, and given one’s own numbers; areas are drawn, pulled and nudged; what it does is seen before it is saved', async ({
  page,
}) => {
  await page.goto('/spec-book/sunpane');
  await page.getByRole('button', { name: 'Copy as your own …' }).click();
  await field(page, 'Name of the sheet').fill('Dunepost');
  await page.getByRole('button', { name: 'Story', exact: true }).click();
  await type(page, 'Dimensions: H in px', '1350');
  // What hangs on the lower edge still does.
  await expect(field(page, 'Covered area 2: T in px')).toHaveValue('1030');
  await type(page, 'Dimensions: H in px', '3');
  await expect(page.getByRole('status')).toContainText('“Story”, Dimensions: A side of a place is a whole number');
  await expect(page.getByRole('button', { name: /^Look it over/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(field(page, 'Dimensions: H in px')).toHaveValue('1350');

  const area = page.getByRole('button', { name: 'Covered: controls' });
  await area.nth(1).focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(field(page, 'Covered area 2: T in px')).toHaveValue('1019');
  const drawing = page.getByLabel('Story, drawn to scale');
  const box = await drawing.boundingBox();
  if (!box) throw new Error('The drawing is not there.');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 40, y + 30, { steps: 4 });
  await page.mouse.up();
  await expect(area).toHaveCount(3);
  // A corner that is pulled near to the edge snaps to it.
  const corner = await area.nth(2).locator('rect').last().boundingBox();
  if (!corner) throw new Error('The area has no corner.');
  await page.mouse.move(corner.x + corner.width / 2, corner.y + corner.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 4, corner.y, { steps: 6 });
  await page.mouse.up();
  const sides = await Promise.all(['L', 'W'].map((side) => field(page, `Covered area 3: ${side} in px`).inputValue()));
  expect(sides.map(Number).reduce((sum, side) => sum + side)).toBe(1080);
  await area.nth(2).focus();
  await page.keyboard.press('Delete');
  await expect(area).toHaveCount(2);
  // A whole drag is one step: back come the area, what it was before it was pulled, and that it was not there.
  const undo = page.getByRole('button', { name: 'Undo' });
  await undo.click();
  await expect(area).toHaveCount(3);
  await undo.click();
  await undo.click();
  await expect(area).toHaveCount(2);

  // What was typed outlives a reload.
  await page.reload();
  await expect(field(page, 'Dimensions: H in px')).toHaveValue('1350');
  await page.getByRole('button', { name: /^Look it over/ }).click();
  await field(page, 'Your name').fill('Ada');
  await page.getByRole('button', { name: 'Save the sheet' }).click();
  const sheet = page.getByRole('region', { name: 'Dunepost' });
  await expect(sheet).toContainText('1080 × 1350 px');
  await expect(sheet).toContainText('version 1');
});

test('a changed number: frames in pairs before it is saved, a window set by hand carried over, two versions side by side', async ({
  page,
}) => {
  await openDemo(page);
  const bench = page.url();
  await page.getByRole('link', { name: 'Pictures and places' }).click();
  await onlyFlyers(page);
  await page.getByRole('searchbox', { name: 'Find places' }).fill('marram notice');
  await page.getByRole('checkbox', { name: 'Marram Board Notice' }).check();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  const notice = wallFrame(page, 'own-marram-board/notice');
  await notice.click();
  await expect(page.getByText(/^numbers checked \d+ days ago/)).toBeVisible();
  await page.getByLabel('Left in px', { exact: true }).fill('900');
  await page.getByLabel('Left in px', { exact: true }).press('Enter');
  await expect(page.getByText('moved by hand')).toBeVisible();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();

  await page.goto('/spec-book/own-marram-board/edit?place=0');
  await type(page, 'Dimensions: H in px', '900');
  await page.getByRole('button', { name: /^See what it does/ }).click();
  const does = page.getByRole('region', { name: 'What it does' });
  await expect(does).toContainText('1 frame in 1 project is touched: Festival week (1).');
  await expect(does).toContainText('The windows of 1 were set by hand: they are carried over, and marked for a look.');
  await expect(page.getByRole('region', { name: 'Before and after' })).toContainText('1200 × 1500 → 1200 × 900 px');
  await page.getByRole('button', { name: 'Save version 3' }).click();
  await page.getByRole('link', { name: 'Versions' }).click();
  await expect(page.getByRole('row', { name: /^Dimensions/ })).toContainText('1200 × 900 px');

  await page.goto(bench);
  await expect(notice).toContainText('1200 × 900');
  await notice.click();
  const findings = page.getByRole('list', { name: 'Findings' });
  await expect(findings).toContainText('The place was 1200 × 1500 px when this window was set');
  await page.getByRole('button', { name: 'It is fine' }).click();
  await expect(findings).not.toContainText('The place was');

  // Put back as it was, by going back to an older version.
  await page.goto('/spec-book/own-marram-board/versions?then=2&now=3');
  await page.getByRole('button', { name: 'Go back to version 2 …' }).click();
  await page.getByRole('button', { name: 'Save version 4' }).click();
  await expect(page.getByRole('region', { name: 'Marram Board' })).toContainText('1200 × 1500 px');
  await page.goto(bench);
  await page.getByRole('link', { name: 'Pictures and places' }).click();
  await onlyFlyers(page);
  await page.getByRole('checkbox', { name: 'Marram Board Notice' }).uncheck();
  await expect(page.getByText('29 frames in this project.')).toBeVisible();
});

test('a table goes out, is changed, and comes in line by line; a set gives a new project its places', async ({
  page,
}) => {
  await page.goto('/spec-book/own-marram-board');
  await page.getByRole('button', { name: 'More' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as a table (CSV)' }).click();
  const table = await readFile(await (await download).path(), 'utf8');
  await page.goto('/spec-book/import');
  const choose = (text: string) =>
    page
      .getByLabel('File of sheets')
      .setInputFiles({ name: 'board.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await choose('sheet,name\nA,B');
  await expect(page.getByRole('alert')).toContainText('board.csv: This table has no column “sheet_id”');
  await choose(
    table
      .replaceAll('own-marram-board', 'own-copied-board')
      .replaceAll('Marram Board', 'Copied Board')
      .replace(',320,320,', ',320,-1,'),
  );
  const sheet = page.getByRole('region', { name: 'Copied Board' });
  await expect(sheet).toContainText('2 new, 1 not understood');
  await expect(sheet.getByRole('row', { name: /Badge/ })).toContainText('“Badge”, Dimensions: A side of a place');
  await page.getByRole('button', { name: 'Take 1 sheet' }).click();
  await expect(page.getByRole('region', { name: 'Copied Board' })).toContainText('Village banner');

  await page.goto('/');
  await page.getByRole('button', { name: 'New from a set' }).click();
  await page.getByText('Weekly clip, 4 places').click();
  await expect(page.getByText('Every picture that comes in gets 4 places.')).toBeVisible();
  await page.getByRole('button', { name: 'Add Snapshot', exact: true }).click();
  await expect(page.getByText('4 frames in this project.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep these places as a set …' }).click();
  await field(page, 'Name of the set').fill('Autumn launch');
  await field(page, 'Name of the set').press('Enter');
  await expect(page.getByRole('button', { name: 'Use Autumn launch 4' })).toBeVisible();
});
