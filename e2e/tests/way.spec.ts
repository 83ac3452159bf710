import { createHash } from 'node:crypto';
import { ManifestSchema } from '@inkwell/core/model';
import { chart, difference } from '@inkwell/server/testing/pictures/pictures.ts';
import { expect } from '@playwright/test';
import sharp from 'sharp';
import { choose, drag, number, settled, stage, test } from '../support/bench.ts';
import { filesOf } from '../support/files.ts';

const places = [
  { label: 'Sunpane Portrait post', id: 'sunpane/portrait-post', width: 1080, height: 1350, limit: 8_000_000 },
  { label: 'Sunpane Story', id: 'sunpane/story', width: 1080, height: 1920, limit: 12_000_000 },
  { label: 'Pipwire Header', id: 'pipwire/header', width: 1500, height: 500, limit: 4_000_000 },
  { label: 'Pipwire Profile picture', id: 'pipwire/profile-picture', width: 512, height: 512, limit: 500_000 },
  { label: 'Candlecast Video thumbnail', id: 'candlecast/video-thumbnail', width: 1280, height: 720, limit: 1_572_864 },
];

test('a picture of one’s own goes to five places on three networks, framed by hand, and comes out right', async ({
  page,
}) => {
  const upright = chart(1733, 1291);
  // As a phone stores it: lying on its side, with a tag that says so.
  const stored = await sharp(await upright.clone().rotate(270).png().toBuffer())
    .withMetadata({ orientation: 6 })
    .jpeg({ quality: 96 })
    .toBuffer();

  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page
    .getByTestId('file-input')
    .setInputFiles({ name: 'Möwe über der Düne.jpg', mimeType: 'image/jpeg', buffer: stored });
  await expect(page.getByText('1733 × 1291 px')).toBeVisible();
  for (const { label } of places) await page.getByRole('checkbox', { name: label, exact: true }).check();
  await expect(page.getByText('5 frames in this project.')).toBeVisible();
  await page.getByRole('button', { name: 'Frame them' }).click();

  // The portrait post starts as the largest centred cut; drag its outline as far left as it goes.
  await choose(page, 'sunpane/portrait-post');
  await expect.poll(() => number(page, 'Left')).toBeCloseTo((1733 - 1032.8) / 2, 0);
  const at = await stage(page);
  await drag(page, at(866, 900), at(50, 900));
  expect(await number(page, 'Left')).toBe(0);
  expect(await number(page, 'Height')).toBe(1291);
  // Pull a corner in, to frame it tighter; the ratio stays locked.
  await drag(page, at(1032.8, 1291), at(700, 1000));
  const [width, height] = [await number(page, 'Width'), await number(page, 'Height')];
  expect(width).toBeLessThan(800);
  expect(width / height).toBeCloseTo(0.8, 3);
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('Enlarged');
  for (const { id } of places) await settled(page, id);

  await page.getByRole('link', { name: 'Deliver' }).click();
  await page.getByRole('button', { name: 'Deliver 5 files' }).click();
  const downloading = page.waitForEvent('download');
  await page.getByRole('link', { name: /Download the archive/ }).click();
  const files = await filesOf(await downloading);

  const manifest = ManifestSchema.parse(JSON.parse(files.get('manifest.json')?.toString() ?? ''));
  expect(manifest.leftOut).toEqual([]);
  expect([...files.keys()]).toEqual([
    'Candlecast/1 Video thumbnail/mowe-uber-der-dune_candlecast_video-thumbnail_1280x720.jpg',
    'Pipwire/1 Header/mowe-uber-der-dune_pipwire_header_1500x500.jpg',
    'Pipwire/2 Profile picture/mowe-uber-der-dune_pipwire_profile-picture_512x512.jpg',
    'Sunpane/1 Portrait post/mowe-uber-der-dune_sunpane_portrait-post_1080x1350.jpg',
    'Sunpane/2 Story/mowe-uber-der-dune_sunpane_story_1080x1920.jpg',
    'manifest.json',
    'posting.csv',
    'posting.html',
  ]);
  for (const place of places) {
    const line = manifest.files.find(
      (one) => `${one.network}/${one.place}`.toLowerCase().replaceAll(' ', '-') === place.id,
    );
    const data = files.get(line?.file ?? '');
    if (!line || !data) throw new Error(`No file for ${place.id}`);
    expect(await sharp(data).metadata()).toMatchObject({ width: place.width, height: place.height, format: 'jpeg' });
    expect(line).toMatchObject({
      width: place.width,
      height: place.height,
      bytes: data.length,
      limitBytes: place.limit,
    });
    expect(data.length).toBeLessThanOrEqual(place.limit * 0.97);
    expect(createHash('sha256').update(data).digest('hex')).toBe(line.sha256);
    const { window } = line;
    if (place.id === 'sunpane/portrait-post') {
      expect(window.left).toBeCloseTo(0, 2);
      expect(window.width).toBeCloseTo(width, 0);
    }
    const cut = {
      left: Math.round(window.left),
      top: Math.round(window.top),
      width: Math.round(window.width),
      height: Math.round(window.height),
    };
    const independent = await upright
      .clone()
      .extract(cut)
      .resize(place.width, place.height, { fit: 'fill' })
      .png()
      .toBuffer();
    expect(await difference(data, independent)).toBeLessThan(3);
  }
});

test('what cannot be taken says why in its line, and the rest goes on', async ({ page }) => {
  await page.goto('/originals');
  const whole = await chart(640, 401).png().toBuffer();
  await page.getByTestId('file-input').setInputFiles([
    { name: 'cut off.png', mimeType: 'image/png', buffer: whole.subarray(0, 20_000) },
    { name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('buy line and spruce') },
    { name: 'whole.png', mimeType: 'image/png', buffer: whole },
  ]);
  const lines = page.getByRole('region', { name: 'Uploads' });
  await expect(lines.getByText('cut off or damaged')).toBeVisible();
  await expect(lines.getByText('not a picture, whatever its name says')).toBeVisible();
  await expect(page.getByRole('article', { name: 'whole', exact: true })).toContainText('640 × 401 px');
  await lines.getByRole('button', { name: 'Try again' }).first().click();
  await expect(lines.getByText('cut off or damaged')).toBeVisible();
  await lines.getByRole('button', { name: 'Dismiss notes.jpg' }).click();
  await lines.getByRole('button', { name: 'Dismiss cut off.png' }).click();
  await expect(lines).toBeHidden();
});
