import { fontFile } from '@inkwell/server/testing/fonts.ts';
import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { choose, drag, settled, test, undoAll, wallFrame } from '../support/bench.ts';

/** Pixels of a picture of the screen. */
async function pixelsOf(png: Buffer) {
  const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** A project with one picture of one grey, which looks the same however it is drawn, in some places. */
async function openGrey(page: Page, places: readonly string[]): Promise<void> {
  const grey = sharp({ create: { width: 2400, height: 2400, channels: 3, background: '#7d8b94' } });
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page
    .getByTestId('file-input')
    .setInputFiles({ name: 'grey.png', mimeType: 'image/png', buffer: await grey.png().toBuffer() });
  await expect(page.getByText('2400 × 2400 px')).toBeVisible();
  for (const name of places) await page.getByRole('checkbox', { name, exact: true }).check();
  await page.getByRole('button', { name: 'Frame them' }).click();
  await expect(page.getByRole('tab', { name: /^grey, looked at/ })).toBeVisible();
}

const paths = (page: Page, placeId: string) => wallFrame(page, placeId).locator('.letter-layers path');

test('words are written once, chosen in a style on one’s own picture, live on every frame, and the same in the proof', async ({
  page,
}) => {
  await openGrey(page, ['Sunpane Square post', 'Sunpane Profile picture']);
  await page.keyboard.press('t');
  await page.getByLabel('Write what it says').fill('Kites over the dunes');
  await page.getByRole('button', { name: 'Bare', exact: true }).click();
  const title = page.getByLabel('What Title says');
  await expect(title).toHaveValue('Kites over the dunes');
  // A style of one's own is kept under a name, and offered beside those that ship.
  await page.getByLabel('Line-height in % em').fill('120');
  await page.getByLabel('Name of this style').fill('Airy');
  await page.getByLabel('Name of this style').press('Enter');
  const airy = page.getByRole('button', { name: 'Airy', exact: true });
  await expect(airy).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('link', { name: 'Export Airy' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete Airy' }).click();
  await expect(airy).toBeHidden();
  await settled(page, 'sunpane/square-post');

  // What is drawn here while nothing is saved, and then the server's proof of the same words.
  await page.route('**/settings', (route) => route.abort('connectionrefused'));
  await title.fill('Autumn, wind 5');
  await expect(paths(page, 'sunpane/square-post')).toHaveCount(2);
  await expect(page.getByRole('status')).toHaveText(/Not connected/);
  await wallFrame(page, 'sunpane/square-post').dblclick();
  const shown = page.getByTestId('close-up').locator('.frame-picture').first();
  await expect(shown).not.toHaveAttribute('data-true', 'true');
  const drawn = await pixelsOf(await shown.screenshot());
  await page.unroute('**/settings');
  await expect(page.getByRole('status')).toHaveText('Saved');
  await expect(shown).toHaveAttribute('data-true', 'true');
  const proved = await pixelsOf(await shown.screenshot());
  expect([proved.width, proved.height]).toEqual([drawn.width, drawn.height]);
  const [across, down, ground] = [[] as number[], [] as number[], drawn.data.at(-1) ?? 0];
  let differing = 0;
  for (let at = 0; at < drawn.data.length; at += 3) {
    const levels = [0, 1, 2].map((channel) => [drawn.data[at + channel] ?? 0, proved.data[at + channel] ?? 0] as const);
    if (levels.some(([a, b]) => Math.abs(a - b) > 24)) differing += 1;
    if (levels.every(([a]) => Math.abs(a - ground) <= 40)) continue;
    across.push((at / 3) % drawn.width);
    down.push(Math.floor(at / 3 / drawn.width));
  }
  const box = (Math.max(...across) - Math.min(...across)) * (Math.max(...down) - Math.min(...down));
  expect(across.length).toBeGreaterThan(3000);
  expect(differing / box).toBeLessThan(0.02);
  await page.keyboard.press('Escape');
  await page.keyboard.press('t');

  // A profile picture stays without words unless somebody wants them there.
  await expect(paths(page, 'sunpane/profile-picture')).toHaveCount(0);
  await page.reload();
  await expect(page.getByLabel('What Title says')).toHaveValue('Autumn, wind 5');
  await undoAll(page);
  await expect(page.getByLabel('Write what it says')).toBeVisible();
});

test('a character that no font has forbids to deliver, a text that fits nowhere is left out with a word, a short version helps', async ({
  page,
}) => {
  await openGrey(page, ['Candlecast Video thumbnail']);
  const [place, findings] = ['candlecast/video-thumbnail', page.getByRole('list', { name: 'Findings' })];
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await page.getByLabel('Write what it says').fill('Kites 🪁');
  await page.getByRole('button', { name: 'Board', exact: true }).click();
  await choose(page, place);
  await expect(findings).toContainText('No font has 🪁 (U+1FA81), which Title is written with.');
  const title = page.getByLabel('What Title says');
  await title.fill('Donaudampfschifffahrtsgesellschaftskapitänsmützenabzeichenverleihung');
  await expect(findings).toContainText('There is no room where Title could be read.');
  await page.getByLabel('Short version of Title').fill('Mützen');
  await expect(findings).toHaveText('No findings.');
  await title.fill('مهرجان الطائرات الورقية');
  await settled(page, place);
  await expect(findings).toHaveText('No findings.');
  // What is no font is refused in words; one that is can be chosen at once, and words are set in it.
  const added = page.getByLabel('A font to add');
  await added.setInputFiles({ name: 'notes.ttf', mimeType: 'font/ttf', buffer: Buffer.from('Wind 5, north-west') });
  await expect(page.getByText('This is no font that is taken: TTF, OTF, WOFF and WOFF2 are.')).toBeVisible();
  await title.fill('Kites');
  await added.setInputFiles(fontFile('kalam'));
  await expect(page.locator('.choice-field', { hasText: 'Font' })).toContainText('Kalam Bold, your own');
  await page.getByRole('button', { name: 'Put Kalam Bold aside' }).click();
  await expect(page.getByRole('button', { name: 'Put Kalam Bold aside' })).toBeHidden();
  await expect(page.locator('.choice-field', { hasText: 'Font' })).toContainText('Kalam Bold, your own');
  await title.fill('مهرجان الطائرات الورقية');
  await settled(page, place);

  // Who cannot see the picture is to hear what is written on it.
  await title.blur();
  await page.locator('body').press('w');
  const beside = page.getByRole('region', { name: 'Metadata' });
  await beside.getByRole('button', { name: /^Add what is written/ }).click();
  await expect(beside.getByRole('textbox', { name: 'Alternative text' })).toHaveValue('مهرجان الطائرات الورقية.');
});

test('an item is dragged on its original, and in the close-up nudged, rewritten and left out by hand, carried to frames of the same shape, and laid out again', async ({
  page,
}) => {
  await openGrey(page, ['Sunpane Square post', 'Pipwire Profile picture']);
  const place = 'sunpane/square-post';
  await page.keyboard.press('t');
  await page.getByLabel('Write what it says').fill('Kites');
  await page.getByRole('button', { name: 'Board', exact: true }).click();
  await choose(page, place);
  await page.getByLabel('Left out on').press('Backspace');
  await expect(page.getByText('Nowhere', { exact: true })).toBeVisible();
  await settled(page, 'pipwire/profile-picture');

  const item = page.getByRole('button', { name: /^Title, / });
  await expect(item).toHaveAccessibleName('Title, laid out');
  const there = await item.boundingBox();
  if (!there) throw new Error('The title is not on the stage.');
  const grip = { x: there.x + there.width / 2, y: there.y + there.height / 2 };
  await drag(page, grip, { x: grip.x + 20, y: grip.y + 30 });
  await expect(item).toHaveAccessibleName('Title, moved by hand');
  await expect.poll(async () => Math.abs(((await item.boundingBox())?.y ?? 0) - there.y - 30)).toBeLessThan(10);
  await page.keyboard.press('Control+z');
  await expect(item).toHaveAccessibleName('Title, laid out');
  await wallFrame(page, place).dblclick();
  await expect(item).toHaveAccessibleName('Title, laid out');
  const before = await item.boundingBox();
  if (!before) throw new Error('The title is not there.');
  const [x, y] = [before.x + before.width / 2, before.y + before.height / 2];
  await drag(page, { x, y }, { x: x + 41, y: y + 67 });
  await expect(item).toHaveAccessibleName('Title, moved by hand');
  const bar = page.getByRole('region', { name: 'Title in this frame' });
  await expect(bar).toContainText('moved by hand');
  const after = await item.boundingBox();
  expect(Math.abs((after?.y ?? 0) - before.y - 67)).toBeLessThan(10);
  await item.press('Shift+ArrowRight');
  await expect.poll(async () => (await item.boundingBox())?.x ?? 0).toBeGreaterThan((after?.x ?? 0) + 1);
  await item.press('+');
  await expect.poll(async () => (await item.boundingBox())?.width ?? 0).toBeGreaterThan(before.width * 1.01);

  await bar.getByLabel('What Title says in this frame').fill('Kites\nfly');
  await bar.getByLabel('What Title says in this frame').blur();
  await expect.poll(async () => (await item.boundingBox())?.height ?? 0).toBeGreaterThan(before.height * 1.5);
  await page.getByRole('button', { name: 'Apply to 1 frame of the same shape' }).click();
  await bar.getByRole('button', { name: 'As in all frames' }).click();
  await bar.getByRole('button', { name: 'Lay it out again' }).click();
  await expect(item).toHaveAccessibleName('Title, laid out');

  // Letters of their ground's colour are found on the file itself, and what is proposed helps.
  const findings = page.getByRole('list', { name: 'Findings' });
  await bar.getByRole('combobox', { name: 'What sets Title off in this frame' }).click();
  await page.getByTitle('Not set off').click();
  await bar.getByRole('button', { name: /^Colour of Title in this frame/ }).click();
  await page.getByLabel('Colour of Title in this frame as a number').fill('#84929b');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(findings).toContainText('to the worst tenth of what lies round its letters');
  await findings.getByRole('button', { name: 'Put a plate under it' }).click();
  await expect(bar).toContainText('On a plate');
  await page.keyboard.press('Escape');
  await settled(page, place);
  await expect(findings).toHaveText('No findings.');
  await wallFrame(page, place).dblclick();
  await item.click();
  await bar.getByRole('button', { name: 'As in all frames' }).click();
  await bar.getByRole('button', { name: 'Leave it out here' }).click();
  await expect(item).toBeHidden();
  await page.getByRole('button', { name: 'Show Title here again' }).click();
  await expect(item).toBeVisible();
  await page.keyboard.press('Escape');
  await wallFrame(page, 'pipwire/profile-picture').dblclick();
  await expect(item).toHaveAccessibleName('Title, moved by hand');
  await page.keyboard.press('Escape');
  await undoAll(page);
});

test('words inside a drawing are replaced in its place, for one project, and put back', async ({ page }) => {
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="800"><rect width="800" height="800" fill="#24506b"/>
    <text x="60" y="400" font-size="150" fill="#fff6e0">Kites</text></svg>`;
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page
    .getByTestId('file-input')
    .setInputFiles({ name: 'drawing.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(drawing) });
  await expect(page.getByText('4000 × 4000 px')).toBeVisible();
  await page.getByRole('checkbox', { name: 'Sunpane Square post', exact: true }).check();
  await page.getByRole('button', { name: 'Frame them' }).click();
  await expect(page.getByRole('tab', { name: /^drawing, / })).toBeVisible();
  await page.keyboard.press('t');
  const text = page.getByLabel('Text 1 of this drawing');
  await expect(text).toHaveValue('Kites');
  const replace = page.getByRole('button', { name: 'Replace the words' });
  await expect(replace).toBeDisabled();
  // What no font has is refused in words, and what was typed stays.
  await text.fill('Kites 🪁');
  await replace.click();
  await expect(page.getByText('No font has 🪁')).toBeVisible();
  await expect(text).toHaveValue('Kites 🪁');
  await text.fill('Drachen');
  await replace.click();
  await expect(page.getByRole('tab', { name: /^drawing, other words/ })).toBeVisible();
  await expect(text).toHaveValue('Drachen');
  await settled(page, 'sunpane/square-post');
  await page.getByRole('button', { name: 'Put the old words back' }).click();
  await expect(page.getByRole('tab', { name: /^drawing, (?!other)/ })).toBeVisible();
  await expect(text).toHaveValue('Kites');
  // The note in the corner takes each of the two back.
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  await expect(text).toHaveValue('Drachen');
});
