import { HookListener } from '@inkwell/server/testing/programs/hookListener.ts';
import { expect } from '@playwright/test';
import { Webhook } from 'standardwebhooks';
import { test } from '../support/bench.ts';

test('a token is made and withdrawn on a page, and a program asks with it', async ({ page, program }) => {
  await page.goto('/programs');
  const tokens = page.getByRole('region', { name: 'Tokens' });
  await tokens.getByRole('textbox', { name: 'What the token is for' }).fill('Night script');
  await page.keyboard.press('Enter');
  const secret = await tokens.getByRole('region', { name: 'This is the new token.' }).locator('code').textContent();
  const ask = async () =>
    (await fetch(`${program.address}/api/v1/projects`, { headers: { Authorization: `Bearer ${secret}` } })).status;
  expect(await ask()).toBe(200);
  await tokens.getByRole('button', { name: 'I have it' }).click();
  // That it was used is seen without a hand.
  const row = tokens.getByRole('row', { name: /Night script/ });
  await expect(row).not.toContainText('Never');
  await page.reload();
  await expect(row).toBeVisible();
  // What it says is told nowhere any more.
  await expect(page.locator('body')).not.toContainText(secret ?? '');
  await row.getByRole('button', { name: 'Withdraw the token for Night script' }).click();
  await page.getByRole('button', { name: 'Withdraw', exact: true }).click();
  await expect(row).toBeHidden();
  expect(await ask()).toBe(401);
});

test('a webhook is made on a page, tried, and taken away', async ({ page }) => {
  const listener = await HookListener.start();
  const { url, heard } = listener;
  await page.goto('/programs');
  const webhooks = page.getByRole('region', { name: 'Webhooks' });
  const address = webhooks.getByRole('textbox', { name: 'Address of the webhook' });
  await address.fill('http://elsewhere.example/');
  await page.keyboard.press('Enter');
  await expect(webhooks.getByRole('alert')).toContainText('INKWELL_HOOK_HOSTS=elsewhere.example');
  await address.fill(url);
  await page.keyboard.press('Enter');
  const secret = await webhooks
    .getByRole('region', { name: /signed by this secret/ })
    .locator('code')
    .textContent();
  const card = webhooks.getByRole('article', { name: url });
  await card.getByRole('button', { name: `Try ${url}` }).click();
  await expect(card.getByRole('row', { name: /Tried by hand/ })).toContainText('Arrived');
  expect(heard).toHaveLength(1);
  const [{ headers, body } = { headers: {}, body: '' }] = heard;
  expect(new Webhook(secret ?? '').verify(body, headers)).toMatchObject({ type: 'webhook.tried' });
  await card.getByRole('button', { name: `Remove ${url}` }).click();
  await expect(card).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card).toBeVisible();
  await card.getByRole('button', { name: `Remove ${url}` }).click();
  await expect(card).toBeHidden();
  listener.stop();
});

test('what programs can ask for is found route by route', async ({ page }) => {
  await page.goto('/programs');
  await page.getByRole('link', { name: 'What it can ask for, route by route' }).click();
  await page.getByRole('searchbox', { name: 'Find a route' }).fill('asks for a delivery');
  const entry = page.getByRole('group').filter({ hasText: 'Asks for a delivery of a project.' });
  await expect(page.locator('.api-entry').filter({ hasText: '/deliveries' })).toHaveCount(1);
  await entry.getByText('Asks for a delivery of a project.').click();
  await expect(entry).toContainText('projectId id');
  await expect(entry).toContainText('pattern optional text, at most 200 characters');
  await entry.getByRole('link', { name: 'Delivery', exact: true }).click();
  await expect(page.locator('#thing-Delivery')).toContainText('leftOut');
  await page.goto('/api/docs#deliveries');
  await expect(page.getByRole('heading', { name: 'Deliveries' })).toBeInViewport();
});
