import { chart, noise } from '@inkwell/server/testing/pictures/pictures.ts';
import { expect } from '@playwright/test';
import { test } from '../support/bench.ts';

test('many pictures at once: a line each; one is cancelled on its way, tried again, and all are there', async ({
  page,
}) => {
  await page.goto('/originals');
  const network = await page.context().newCDPSession(page);
  await network.send('Network.enable');
  const speed = (bytesASecond: number) =>
    network.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput: bytesASecond,
    });
  await speed(150_000);
  const small = await chart(222, 111).png().toBuffer();
  await page
    .getByTestId('file-input')
    .setInputFiles([
      { name: 'heavy.png', mimeType: 'image/png', buffer: await noise(900, 700).png().toBuffer() },
      ...[1, 2, 3].map((number) => ({ name: `light ${number}.png`, mimeType: 'image/png', buffer: small })),
    ]);
  const lines = page.getByRole('region', { name: 'Uploads' });
  const heavy = lines.locator('.upload-line', { hasText: 'heavy.png' });
  await expect(heavy).toHaveAttribute('data-state', 'sending');
  await expect(heavy.getByRole('progressbar')).not.toHaveAttribute('aria-valuenow', '0');
  await heavy.getByRole('button', { name: 'Cancel' }).click();
  await expect(heavy).toContainText('Cancelled. Nothing was kept.');
  for (const number of [1, 2, 3])
    await expect(page.getByRole('article', { name: `light ${number}`, exact: true })).toContainText('222 × 111 px');
  await expect(page.getByRole('article', { name: 'heavy', exact: true })).toBeHidden();

  // It goes on when another screen is opened.
  await speed(-1);
  await heavy.getByRole('button', { name: 'Try again' }).click();
  await page.getByRole('link', { name: 'Spec book' }).click();
  await expect(lines).toBeHidden();
  await page.getByRole('link', { name: 'Originals' }).click();
  await expect(page.getByRole('article', { name: 'heavy', exact: true })).toContainText('900 × 700 px');
});
