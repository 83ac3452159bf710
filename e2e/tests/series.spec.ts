import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { test } from '../support/bench.ts';

/** A project with two pictures at a place, and a title over both. */
async function openTitled(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  const flat = (background: string) => sharp({ create: { width: 1200, height: 1200, channels: 3, background } });
  for (const [at, [name, colour]] of Object.entries({ loft: '#5d7b74', quay: '#7d6b54' }).entries()) {
    const buffer = await flat(colour).png().toBuffer();
    await page.getByTestId('file-input').setInputFiles({ name: `${name}.png`, mimeType: 'image/png', buffer });
    // One after the other: they stand in the project in the order in which they came.
    await expect(page.getByText('1200 × 1200 px')).toHaveCount(at + 1);
  }
  await page.getByRole('checkbox', { name: 'Sunpane Square post', exact: true }).check();
  await page.getByRole('button', { name: 'Frame them' }).click();
  await expect(page.getByRole('tab', { name: /^loft, looked at/ })).toBeVisible();
  await page.keyboard.press('t');
  await page.getByLabel('Write what it says').fill('Kites');
  await page.getByRole('button', { name: 'Bare', exact: true }).click();
  await expect(page.getByRole('status')).toHaveText('Saved');
  await page.getByRole('link', { name: 'Series' }).click();
}

/** The words of the picture’s frames as the server plans them. */
const said = (page: Page) =>
  page.evaluate(async () => {
    const id = location.pathname.split('/')[2];
    const { originals, lettering } = await (await fetch(`/api/v1/projects/${id}`)).json();
    const [{ text, onPictures = {} }] = lettering;
    return originals.map((one: { id: string; name: string }) => `${one.name}: ${onPictures[one.id]?.text ?? text}`);
  });

test('cells say what single pictures say, are filled like those of a spreadsheet, and follow the design again', async ({
  page,
}) => {
  await openTitled(page);
  const [loft, quay] = [
    page.getByLabel('Title on loft', { exact: true }),
    page.getByLabel('Title on quay', { exact: true }),
  ];
  await loft.fill('Episode 12');
  await loft.press('Enter');
  await expect(quay).toBeFocused();
  await quay.press('End');
  await quay.press('Shift+Enter');
  await expect(quay).toHaveValue('Kites\n');
  await loft.evaluate((cell) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', 'Episode 13\r\n"Two\nlines"\r\n');
    cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  });
  await expect(quay).toHaveValue('Two\nlines');
  await expect.poll(() => said(page)).toEqual(['loft: Episode 13', 'quay: Two\nlines']);
  await page.getByRole('button', { name: 'Title on quay: as the design says' }).click();
  await expect(quay).toHaveValue('Kites');
  // On the bench the words of the picture that is shown are written.
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.getByRole('tab', { name: /^loft/ }).click();
  await page.keyboard.press('t');
  await page.getByLabel('What Title says on this picture').fill('Episode 14');
  await page.getByRole('tab', { name: /^quay/ }).click();
  await page.getByLabel('What Title says', { exact: true }).fill('Flyers');
  await expect.poll(() => said(page)).toEqual(['loft: Episode 14', 'quay: Flyers']);
});

test('a table is pasted, its columns are given a meaning, what is wrong is seen before, and all of it is taken back', async ({
  page,
}) => {
  await openTitled(page);
  await page.getByRole('button', { name: 'Read a table …' }).click();
  const take = page.getByRole('button', { name: /^Take \d+ rows?$/ });
  await page
    .getByLabel('Rows of the table')
    .fill('Which;What\nloft;Episode 20\nquay;\nloft.png;Episode 21\nmoor;Episode 22');
  // Nothing is known of these heads: what stands in the cells says what they are.
  await expect(page.getByRole('row')).toHaveCount(6);
  await page.getByRole('checkbox', { name: 'The first row says what the columns are' }).check();
  const rows = page.getByRole('table', { name: 'How the table is understood' });
  await expect(rows).toContainText('No picture is called moor.');
  await expect(rows).toContainText('gets a copy');
  await expect(rows).toContainText('left out');
  await page.getByRole('combobox', { name: 'What column 2, What, is' }).press('Enter');
  await page.getByTitle('What the picture is called').click();
  await expect(take).toHaveText('Take 3 rows');
  await page.getByRole('combobox', { name: 'What column 2, What, is' }).press('Enter');
  await page.getByTitle('Title', { exact: true }).last().click();
  await expect(take).toBeEnabled();
  await take.click();
  await expect(page.getByLabel('Title on loft 2', { exact: true })).toHaveValue('Episode 21');
  expect(await said(page)).toEqual(['loft: Episode 20', 'quay: ', 'loft 2: Episode 21']);
  await expect(page.getByRole('link', { name: '1 place' })).toHaveCount(3);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByLabel('Title on loft 2', { exact: true })).toBeHidden();
  await expect.poll(() => said(page)).toEqual(['loft: Kites', 'quay: Kites']);

  await page.getByRole('link', { name: 'Read a table' }).click();
  await page
    .getByLabel('File of a table')
    .setInputFiles({ name: 'torn.csv', mimeType: 'text/csv', buffer: Buffer.from('a,"b') });
  await expect(page.getByRole('alert')).toContainText('a quotation mark is not closed');
});
