import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { chart } from '@inkwell/server/testing/pictures/pictures.ts';
import { expect } from '@playwright/test';
import { choose, number, openDemo, test, undoAll, wallFrame } from '../support/bench.ts';

test('a frame is found, moved, tightened, typed and undone with the keyboard alone', async ({ page }) => {
  await page.goto('/');
  const open = page.getByRole('link', { name: 'Open Festival week', exact: true });
  await expect(open).toBeVisible();
  for (let presses = 0; presses < 20 && !(await open.evaluate((link) => link === document.activeElement)); presses += 1)
    await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(wallFrame(page, 'sunpane/square-post')).toHaveAttribute('aria-pressed', 'true');

  // Next frame, then move it; the reading follows, the other frames stay.
  await page.keyboard.press('.');
  await expect(wallFrame(page, 'sunpane/portrait-post')).toHaveAttribute('aria-pressed', 'true');
  const [left, top, width] = [await number(page, 'Left'), await number(page, 'Top'), await number(page, 'Width')];
  await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(() => number(page, 'Left')).toBeCloseTo(left - (10 * width) / 1080, 0);
  await page.keyboard.press('ArrowUp');
  await expect.poll(() => number(page, 'Top')).toBeLessThan(top);
  await page.keyboard.press('+');
  await expect.poll(() => number(page, 'Width')).toBeCloseTo(width * 0.97, 0);
  await page.keyboard.press('?');
  await expect(page.getByRole('table', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('?');

  // The arrows belong to a number while it has the focus.
  const field = page.getByLabel('Top in px');
  await field.focus();
  await field.fill('300');
  await page.keyboard.press('ArrowUp');
  await expect(field).toHaveValue('301');
  await field.fill('no number');
  await expect(field).toHaveAttribute('title', /number is needed/);
  await page.keyboard.press('Escape');
  await expect(field).toHaveValue('301');
  await field.blur();
  const undo = page.getByRole('button', { name: 'Undo' });
  while (await undo.isEnabled()) await page.keyboard.press('Control+z');
  await expect.poll(() => number(page, 'Left')).toBeCloseTo(left, 1);
  await page.keyboard.press(',');
  await expect(wallFrame(page, 'sunpane/square-post')).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('status')).toHaveText('Saved');
});

test('a ring, its colour, a cut-out and a stretch are made with the keyboard alone', async ({ page }) => {
  await openDemo(page);
  await choose(page, 'pipwire/profile-picture');
  const reading = page.getByRole('region', { name: 'Reading' });
  const choosing = async (list: string, downs: number) => {
    await page.getByLabel(list, { exact: true }).focus();
    await page.keyboard.press('Enter');
    await expect(page.locator('.ant-select-item-option-active:visible')).toBeVisible();
    for (let press = 0; press < downs; press += 1) await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
  };
  await choosing('Ring', 1);
  await expect(reading).toContainText('Ring outside the picture');
  await page.getByRole('button', { name: /^Colour of the ring/ }).focus();
  await page.keyboard.press('Enter');
  const typed = page.getByLabel('Colour of the ring as a number');
  await expect(typed).toBeFocused();
  await typed.fill('ABC');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Colour of the ring: #aabbcc' })).toBeVisible();
  await typed.fill('no colour');
  await expect(page.getByRole('region', { name: 'Colour of the ring' })).toContainText('six digits');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Colour of the ring: #aabbcc' })).toBeFocused();
  await choosing('Delivered as', 1);
  await expect(reading).toContainText('Cut out, transparent around it');
  await expect(reading).toContainText('PNG');
  await page.getByRole('button', { name: 'More' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menuitem', { name: /^Stretch/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('Stretched');
  await page.locator('body').click({ position: { x: 640, y: 66 } });
  const undo = page.getByRole('button', { name: 'Undo', exact: true });
  while (await undo.isEnabled()) await page.keyboard.press('Control+z');
  await expect(reading).toContainText('No ring');
  await expect(page.getByRole('status')).toHaveText('Saved');
});

test('pictures come in by dropping and by pasting, and go out bit for bit', async ({ page }) => {
  await page.goto('/originals');
  const give = async (name: string, how: 'drop' | 'paste') => {
    const bytes = await chart(321, name.length * 20 + 41)
      .png()
      .toBuffer();
    await page.locator('.drop-area').evaluate(
      (area, { base64, name, how }) => {
        const data = new DataTransfer();
        data.items.add(
          new File([Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))], name, { type: 'image/png' }),
        );
        if (how === 'paste') document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data }));
        else area.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
      },
      { base64: bytes.toString('base64'), name, how },
    );
    return bytes;
  };
  const dropped = await give('dropped kite.png', 'drop');
  await expect(page.getByRole('article', { name: 'dropped kite', exact: true })).toContainText('321 × 361 px');
  await give('pasted.png', 'paste');
  await expect(page.getByRole('article', { name: 'pasted', exact: true })).toContainText('321 × 241 px');

  const downloading = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download dropped kite', exact: true }).click();
  const back = await readFile(await (await downloading).path());
  const hash = (data: Buffer) => createHash('sha256').update(data).digest('hex');
  expect(hash(back)).toBe(hash(dropped));

  const card = page.getByRole('article', { name: 'pasted', exact: true });
  await card.getByRole('button', { name: 'Delete pasted' }).click();
  await expect(card).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card).toBeVisible();
});

test('a blocker stands in the delivery with its reason, and its fix on the bench takes it away', async ({ page }) => {
  await openDemo(page);
  // A shade under words takes away the grain that this is about.
  await page.locator('body').press('t');
  for (const name of ['Title', 'Date', 'Emblem']) await page.getByRole('button', { name: `Remove ${name}` }).click();
  await page.locator('body').press('Escape');
  await choose(page, 'candlecast/video-thumbnail');
  // The list opens above or below, and may move once before it stands.
  await expect(async () => {
    await page.getByLabel('Format').click();
    await page.getByRole('option', { name: 'PNG' }).or(page.locator('.ant-select-item[title="PNG"]')).last().click();
    await expect(page.getByRole('region', { name: 'Reading' })).toContainText('PNG', { timeout: 2000 });
  }).toPass();
  await expect(page.getByRole('list', { name: 'Findings' })).not.toContainText('still being measured');
  await page.getByLabel('Width in px').fill('1280');
  await page.keyboard.press('Enter');
  // At one to one the grain of the photograph does not compress without loss: it passes 1.5 MiB.
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('Blocker');
  await page.getByRole('link', { name: 'Deliver' }).click();
  const blocked = page.getByRole('listitem').filter({ hasText: 'At its lightest this file weighs' });
  await expect(blocked).toContainText('Five flyers, Candlecast Video thumbnail');
  await blocked.getByRole('link', { name: 'Look at it' }).click();
  await page.getByRole('button', { name: 'Deliver as JPEG' }).click();
  await expect(page.getByRole('list', { name: 'Findings' })).not.toContainText('Blocker');
  const undo = page.getByRole('button', { name: 'Undo' });
  while (await undo.isEnabled()) await undo.click();
  await expect(page.getByRole('status')).toHaveText('Saved');
});

test('where motion is welcome, lists and pickers open and go as well', async ({ page }) => {
  await page.emulateMedia({ reducedMotion: 'no-preference' });
  await openDemo(page);
  await choose(page, 'pipwire/profile-picture');
  await page.getByLabel('Ring', { exact: true }).click();
  await page.getByTitle('Ring outside the picture').click();
  await expect(page.locator('.ant-select-dropdown:visible')).toHaveCount(0);
  await page.getByRole('button', { name: /^Colour of the ring/ }).click();
  const proposed = page.getByRole('button', { name: /^Use #/ });
  await proposed.first().click();
  await page.keyboard.press('Escape');
  await expect(proposed.first()).toBeHidden();
  await undoAll(page);
});
