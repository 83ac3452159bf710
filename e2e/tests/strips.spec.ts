import { join } from 'node:path';
import { ManifestSchema } from '@inkwell/core/model';
import { difference } from '@inkwell/server/testing/pictures/pictures.ts';
import { expect } from '@playwright/test';
import sharp, { type Sharp } from 'sharp';
import { choose, drag, number, settled, stage, test, wallFrame } from '../support/bench.ts';
import { filesOf } from '../support/files.ts';
import { art } from '../support/program.ts';

const strip = 'sunpane/swipe-panels-portrait';

test('a panorama becomes five panels, a block and a quilt that meet exactly; a tall picture hears what works instead', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  for (const name of ['Dune panorama', 'Kite maker']) await page.getByRole('button', { name: `Add ${name}` }).click();
  await page.getByRole('checkbox', { name: 'Sunpane Swipe panels, portrait', exact: true }).check();
  await page.getByRole('checkbox', { name: 'Give places to Kite maker' }).uncheck();
  for (const name of ['Pipwire Four-up block', 'Sunpane Profile quilt'])
    await page.getByRole('checkbox', { name, exact: true }).check();
  await expect(page.getByText('4 frames in this project.')).toBeVisible();
  await page.getByRole('button', { name: 'Frame them' }).click();

  await page.getByRole('tab', { name: 'Dune panorama' }).click();
  await choose(page, strip);
  const reading = page.getByRole('region', { name: 'Reading' });
  await expect(reading).toContainText('5 panels, suits it best');
  // A kite where the second seam lies: the strip is composed anew so that no seam meets it.
  const at = await stage(page);
  await page.getByTitle('Draw around what must be in every frame').click();
  await drag(page, at(4600, 400), at(5000, 1000));
  await expect(page.getByRole('button', { name: 'Keep 1, must be kept' })).toBeVisible();
  const seams = async (panels: number) => {
    const [left, width] = [await number(page, 'Left'), await number(page, 'Width')];
    return Array.from({ length: panels - 1 }, (_, index) => left + (width * (index + 1)) / panels);
  };
  await expect.poll(async () => (await seams(5)).every((seam) => seam <= 4612 || seam >= 4988)).toBe(true);
  await expect(page.getByRole('list', { name: 'Findings' })).not.toContainText('A seam runs');

  for (const panels of [4, 3]) {
    await page.locator('body').press('Shift+N');
    await expect(wallFrame(page, strip)).toContainText(`${panels} × 1080 × 1350`);
  }
  for (const _ of [4, 5]) await page.locator('body').press('n');
  await expect(wallFrame(page, strip)).toContainText('5 × 1080 × 1350');
  await settled(page, strip);

  await page.getByRole('combobox', { name: 'Closing panel' }).click();
  await page.getByTitle('Closes whole, on an echo').click();
  await expect(wallFrame(page, strip)).toContainText('6 × 1080 × 1350');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(wallFrame(page, strip)).toContainText('5 × 1080 × 1350');
  await settled(page, strip);

  await wallFrame(page, strip).press('Enter');
  const swipe = page.getByRole('region', { name: 'Swipe it' });
  await swipe.getByRole('slider').focus();
  await page.keyboard.press('ArrowRight');
  await expect(swipe.getByRole('status')).toHaveText('Panel 2 of 5');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(swipe.getByRole('status')).toHaveText('Between 2 and 3');
  const view = await swipe.getByRole('slider').boundingBox();
  if (!view) throw new Error('no view');
  await drag(page, { x: view.x + 300, y: view.y + 200 }, { x: view.x + 120, y: view.y + 200 });
  await expect(swipe.getByRole('status')).toHaveText('Panel 3 of 5');
  // A flick ends before the browser has painted its movement.
  await swipe.getByRole('slider').evaluate(async (element) => {
    const at = (type: string, clientX: number) =>
      element.dispatchEvent(
        new PointerEvent(type, {
          pointerId: 1,
          isPrimary: true,
          clientX,
          buttons: type === 'pointerup' ? 0 : 1,
          bubbles: true,
        }),
      );
    at('pointerdown', 100);
    await new Promise((resolve) => setTimeout(resolve));
    at('pointermove', 280);
    at('pointerup', 280);
  });
  await expect(swipe.getByRole('status')).toHaveText('Between 2 and 3');
  await page.mouse.wheel(0, -180);
  await expect(swipe.getByRole('status')).toHaveText('Panel 1 of 5');
  await page.getByRole('button', { name: 'Back', exact: true }).click();

  await wallFrame(page, 'sunpane/profile-quilt').dblclick();
  const profile = page.getByRole('region', { name: 'The profile page' });
  await expect(profile.locator('.tile .frame-picture')).toHaveCount(6);
  await profile.getByRole('slider').press('ArrowLeft');
  await expect(profile).toContainText('5 of 6 posted');
  await expect(profile.locator('.tile .frame-picture')).toHaveCount(5);
  await page.getByRole('button', { name: 'Back', exact: true }).click();

  await page.getByRole('tab', { name: 'Kite maker' }).click();
  await choose(page, strip);
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('taller than it is wide');
  await page.getByRole('button', { name: 'Show all of it on an echo' }).click();
  await expect(page.getByRole('list', { name: 'Findings' })).not.toContainText('taller than it is wide');
  await settled(page, strip);

  await page.getByRole('link', { name: 'Deliver' }).click();
  await page.getByRole('button', { name: /^Deliver \d+ files$/ }).click();
  const downloading = page.waitForEvent('download');
  await page.getByRole('link', { name: /Download the archive/ }).click();
  const files = await filesOf(await downloading);
  const manifest = ManifestSchema.parse(JSON.parse(files.get('manifest.json')?.toString() ?? ''));
  expect(manifest.leftOut).toEqual([]);
  const of = (place: string) =>
    manifest.files
      .filter((one) => one.place === place && one.original === 'Dune panorama')
      .sort((a, b) => (a.file < b.file ? -1 : 1));
  const panels = of('Swipe panels, portrait');
  expect(panels.map((one) => [one.piece?.number, one.width, one.height])).toEqual(
    [1, 2, 3, 4, 5].map((each) => [each, 1080, 1350]),
  );
  expect(new Set(panels.map((one) => one.quality)).size).toBe(1);
  for (const { step, undivided } of panels.flatMap((one) => one.seams ?? [])) expect(step - undivided).toBeLessThan(2);
  const joined = sharp({ create: { width: 5400, height: 1350, channels: 3, background: '#000' } }).composite(
    panels.map(({ file }, index) => ({ input: files.get(file) ?? Buffer.alloc(0), left: index * 1080, top: 0 })),
  );
  const window = panels[0]?.window ?? { left: 0, top: 0, width: 1, height: 1 };
  const cut = {
    left: Math.round(window.left),
    top: Math.round(window.top),
    width: Math.round(window.width),
    height: Math.round(window.height),
  };
  const small = (picture: Sharp) => picture.resize(1800, 450, { fit: 'fill' });
  const independent = small(sharp(join(art, 'dune-panorama.jpg')).extract(cut));
  expect(await difference(small(sharp(await joined.png().toBuffer())), independent)).toBeLessThan(2);

  expect(of('Four-up block').map(({ piece }) => [piece?.number, piece?.row, piece?.column])).toEqual([
    [1, 1, 1],
    [2, 2, 1],
    [3, 1, 2],
    [4, 2, 2],
  ]);
  expect(of('Profile quilt')[0]?.piece).toMatchObject({ number: 1, row: 2, column: 3 });
  expect(files.get('posting.html')?.toString()).toContain('uploaded in this order and no other');
});
