import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { choose, number, openDemo, settled, test, undoAll, wallFrame } from '../support/bench.ts';

const whatIsSeen = (page: Page) => page.getByRole('region', { name: 'What is seen' });
const reading = (page: Page) => page.getByRole('region', { name: 'Reading' });
const face = (page: Page) => page.getByRole('group', { name: 'Seen: face, sure' });

test('a picture without a mark is framed by what was seen in it, until a person keeps, avoids or dismisses that', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('tab', { name: /^Kite maker, seen: one face$/ }).click();
  await choose(page, 'sunpane/profile-picture');
  await expect(whatIsSeen(page)).toContainText('Seen: one face.');
  await expect(reading(page)).toContainText('Composed from what was seen: one face.');
  const composed = await number(page, 'Width');
  // Half of what a profile picture of the whole would show: the face is large in it.
  expect(composed).toBeLessThan(2000);

  // Kept, it is a mark like those that are drawn, and nothing moves.
  await face(page).hover();
  await face(page).getByRole('button', { name: 'Keep face' }).click();
  await expect(page.getByRole('button', { name: 'Face 1, must be kept' })).toBeVisible();
  await expect(face(page)).toBeHidden();
  await expect(whatIsSeen(page)).toContainText('All that was seen is decided.');
  await expect(reading(page)).not.toContainText('Composed from what was seen');
  expect(await number(page, 'Width')).toBe(composed);
  await undoAll(page);
  await expect(face(page)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Face 1, must be kept' })).toBeHidden();

  // Dismissed by the keyboard, it is gone for good.
  await face(page).getByRole('button', { name: 'Dismiss face' }).focus();
  await page.keyboard.press('Enter');
  await expect(face(page)).toBeHidden();
  await expect.poll(() => number(page, 'Width')).toBe(4000);
  await expect(page.getByRole('status')).toHaveText('Saved');
  await page.reload();
  await expect(whatIsSeen(page)).toContainText('All that was seen is decided.');
  await undoAll(page);

  await face(page).hover();
  await face(page).getByRole('button', { name: 'Avoid face' }).click();
  await expect(page.getByRole('button', { name: 'Face 1, to be avoided' })).toBeVisible();
  await undoAll(page);

  // From a person's marks only, for the whole project.
  await page.getByRole('checkbox', { name: 'Compose from this' }).click();
  await expect.poll(() => number(page, 'Width')).toBe(4000);
  await expect(face(page)).toBeVisible();
  await undoAll(page);
  await expect.poll(() => number(page, 'Width')).toBe(composed);
});

/** Sea and sky, the horizon turned by so many degrees, with a little grain. */
async function leaning(degrees: number): Promise<Buffer> {
  const [width, height] = [1200, 800];
  const slope = Math.tan((degrees * Math.PI) / 180);
  const data = Buffer.alloc(width * height * 3);
  let state = 7;
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += 3) {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
      const isSky = y - 420 < (x - width / 2) * slope;
      for (const [channel, level] of (isSky ? [188, 204, 226] : [52, 92, 104]).entries()) {
        data[at + channel] = level + (state >>> 28) - 8;
      }
    }
  }
  return sharp(data, { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer();
}

/** A card with a soft shadow on an empty margin, and two stray dots. */
const card = () =>
  sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="1500" height="900"><rect width="1500" height="900" fill="#fff"/>
      <filter id="soft"><feGaussianBlur stdDeviation="14"/></filter>
      <rect x="132" y="108" width="1240" height="700" fill="#000" opacity="0.4" filter="url(#soft)"/>
      <rect x="120" y="90" width="1240" height="700" fill="#2a6f66"/>
      <circle cx="22" cy="24" r="5" fill="#c33"/><circle cx="1450" cy="860" r="6" fill="#c33"/></svg>`),
  )
    .png()
    .toBuffer();

test('a picture that leans is straightened in all its frames, and artwork trimmed to its body, in one press each', async ({
  page,
}) => {
  await page.goto('/originals');
  await page.getByTestId('file-input').setInputFiles([
    { name: 'leaning sea.png', mimeType: 'image/png', buffer: await leaning(2.4) },
    { name: 'kite card.png', mimeType: 'image/png', buffer: await card() },
  ]);
  for (const name of ['leaning sea', 'kite card']) {
    await expect(page.getByRole('article', { name, exact: true })).toContainText('px');
  }
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  for (const name of ['kite card', 'leaning sea']) await page.getByRole('button', { name: `Add ${name}` }).click();
  for (const name of ['Sunpane Square post', 'Sunpane Story']) {
    await page.getByRole('checkbox', { name, exact: true }).check();
  }
  await expect(page.getByText('4 frames in this project.')).toBeVisible();
  await page.getByRole('button', { name: 'Frame them' }).click();

  await page.getByRole('tab', { name: /^leaning sea, looked at; leans$/ }).click();
  await expect(whatIsSeen(page)).toContainText('Looked at: nothing found.');
  await expect(whatIsSeen(page)).toContainText('Leans 2.4° to the right.');
  await choose(page, 'sunpane/story');
  const turn = page.getByLabel('Straighten in °', { exact: true });
  await expect(reading(page)).toContainText('The picture leans 2.4° to the right.');
  await reading(page).getByRole('button', { name: 'Straighten by 2.4°' }).click();
  await expect(turn).toHaveValue('-2.4');
  await expect(reading(page)).not.toContainText('leans');
  await whatIsSeen(page).getByRole('button', { name: 'Straighten all' }).click();
  await expect(whatIsSeen(page)).not.toContainText('Leans');
  await choose(page, 'sunpane/square-post');
  await expect(turn).toHaveValue('-2.4');
  await settled(page, 'sunpane/square-post');

  await page.getByRole('tab', { name: /^kite card, .*has an empty margin$/ }).click();
  await whatIsSeen(page).getByRole('button', { name: 'Trim to it' }).click();
  await expect(whatIsSeen(page)).not.toContainText('Empty margin');
  // The card without its shadow and without the dots.
  await choose(page, 'sunpane/square-post');
  await expect.poll(async () => Math.abs((await number(page, 'Height')) - 700)).toBeLessThanOrEqual(2);
  expect(Math.abs((await number(page, 'Top')) - 90)).toBeLessThanOrEqual(2);
  await expect(wallFrame(page, 'sunpane/square-post')).toBeVisible();
});
