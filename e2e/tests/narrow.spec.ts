import { expect, type Page } from '@playwright/test';
import { choose, number, openDemo, settled, stage, test, undoAll, wallFrame } from '../support/bench.ts';

test.use({ hasTouch: true });

/** Puts fingers down, moves them in small steps, and lifts them. */
async function touch(page: Page, fingers: { from: Point; to: Point }[]): Promise<void> {
  const client = await page.context().newCDPSession(page);
  const at = (share: number) =>
    fingers.map(({ from, to }, id) => ({
      id,
      x: from.x + (to.x - from.x) * share,
      y: from.y + (to.y - from.y) * share,
    }));
  // One finger comes down after the other, as on a hand.
  for (const [index] of fingers.entries()) {
    await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(0).slice(0, index + 1) });
  }
  for (let step = 1; step <= 10; step += 1) {
    await client.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(step / 10) });
  }
  await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
}

interface Point {
  x: number;
  y: number;
}

/** What reaches past the window though nothing round it can be scrolled, and what is too small for a finger. */
const misfits = (page: Page) =>
  page.evaluate(() => {
    const scrolls = (element: Element) => {
      for (let above = element.parentElement; above; above = above.parentElement) {
        if (['auto', 'scroll', 'hidden'].includes(getComputedStyle(above).overflowX)) return true;
      }
      return false;
    };
    const named = (element: Element) =>
      `${element.tagName} ${element.className} “${element.textContent?.slice(0, 30)}”`;
    const seen = [...document.querySelectorAll('body *')].filter((element) => element.checkVisibility());
    const wide = seen.filter((element) => element.getBoundingClientRect().right > innerWidth + 1 && !scrolls(element));
    const small = seen.filter((element) => {
      if (!element.matches('button, [role="button"], [role="tab"], .tabs a')) return false;
      if (element.closest('.ant-notification, .visually-hidden')) return false;
      const { width, height } = element.getBoundingClientRect();
      return Math.min(width, height) < 43.5;
    });
    // Parts of a page may scroll sideways; the page itself and what holds its screens may not.
    const pages = [document.documentElement, ...document.querySelectorAll('main, .project-body')];
    const sideways = pages.filter(({ scrollWidth, clientWidth }) => scrollWidth > clientWidth + 1);
    return [
      ...sideways.map((element) => `sideways: ${element.tagName} ${element.className}`),
      ...wide.map((element) => `wide: ${named(element)}`),
      ...small.map((element) => `small: ${named(element)}`),
    ];
  });

const sizes = [
  [360, 740],
  [390, 844],
  [820, 1180],
  [999, 700],
] as const;

/** Looks at the page as it stands in windows of several dimensions. */
async function expectToFit(page: Page): Promise<void> {
  for (const [width, height] of sizes) {
    await page.setViewportSize({ width, height });
    await expect.poll(() => misfits(page), `${page.url()} at ${width} × ${height}`).toEqual([]);
  }
}

test('from 360 px on nothing is wider than the window, and a finger finds everything', async ({ page }) => {
  const board = '/spec-book/own-marram-board';
  for (const path of [
    '/',
    '/originals',
    '/spec-book',
    '/spec-book/import',
    '/programs',
    '/shares',
    '/api/docs',
    `${board}/versions`,
    `${board}/edit?place=0`,
  ]) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expectToFit(page);
  }
  await openDemo(page);
  const { pathname } = new URL(page.url());
  const parts = [
    '',
    '?part=original',
    '?part=reading',
    '?view=close',
    '?view=lettering',
    '?view=finish',
    '?view=weight',
  ];
  for (const path of [...parts, '/choose', '/series', '/series/table', '/look-over', '/history']) {
    await page.goto(`${pathname}${path}`);
    await expect(page.getByRole('main').getByRole('button').first()).toBeVisible();
    await expectToFit(page);
  }
  for (const path of ['files', 'deliver']) {
    await page.goto(`${pathname}/${path}`);
    await expect(page.getByText('29 files').first()).toBeVisible();
    await expectToFit(page);
  }
  await page.getByRole('button', { name: 'Deliver 29 files' }).click();
  await page.getByRole('link', { name: /Download the archive/ }).waitFor();
  await expectToFit(page);
});

test('what opens on the bench fits as well', async ({ page }) => {
  await openDemo(page);
  await page.setViewportSize({ width: 390, height: 844 });
  const ways = page.getByRole('navigation', { name: 'Parts of the bench' });
  await ways.getByRole('button', { name: 'Original' }).tap();
  await page.getByRole('button', { name: /^Flyer in red/ }).tap();
  await page.getByRole('button', { name: 'More of the mark' }).tap();
  await expectToFit(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.getByRole('button', { name: /^Flyer in red/ }).tap();
  await page.getByRole('button', { name: 'Trim …' }).tap();
  await expectToFit(page);
  await page.keyboard.press('Escape');
  await page.setViewportSize({ width: 390, height: 844 });
  await ways.getByRole('button', { name: 'Wall' }).tap();
  await choose(page, 'sunpane/square-post');
  await ways.getByRole('button', { name: 'Reading' }).tap();
  await page.getByLabel('Backing').tap();
  await page.locator('.ant-select-item[title="One colour"]').tap();
  await page.getByRole('button', { name: /^Colour of the backing/ }).tap();
  await expect(page.getByRole('button', { name: /^Take a colour/ })).toBeVisible();
  await expectToFit(page);
  await page.keyboard.press('Escape');
  await undoAll(page);
});

test('on a phone a thumb goes between wall, original and reading; fingers drag and pinch', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openDemo(page);
  const ways = page.getByRole('navigation', { name: 'Parts of the bench' });
  await choose(page, 'sunpane/square-post');
  await settled(page, 'sunpane/square-post');
  await ways.getByRole('button', { name: 'Reading' }).tap();
  await expect(wallFrame(page, 'sunpane/square-post')).toBeHidden();
  const [left, span] = [await number(page, 'Left'), await number(page, 'Width')];

  await ways.getByRole('button', { name: 'Original' }).tap();
  const at = await stage(page);
  const [middle, aside] = [at(left + span / 2, 2000), at(left + span / 2 + 600, 2000)];
  await touch(page, [{ from: middle, to: aside }]);
  await ways.getByRole('button', { name: 'Reading' }).tap();
  await expect(async () => expect(Math.abs((await number(page, 'Left')) - left - 600)).toBeLessThan(80)).toPass();

  // Two fingers that part show less of the picture, larger; and nothing is drawn with the first of them.
  await ways.getByRole('button', { name: 'Original' }).tap();
  const marks = page.locator('.mark-chip');
  const before = await marks.count();
  const spread = (by: number, to: number) =>
    [-1, 1].map((way) => ({ from: { x: aside.x + way * by, y: aside.y }, to: { x: aside.x + way * to, y: aside.y } }));
  await touch(page, spread(30, 45));
  expect(await marks.count()).toBe(before);
  await ways.getByRole('button', { name: 'Reading' }).tap();
  await expect(async () =>
    expect(Math.abs((await number(page, 'Width')) - span / 1.5)).toBeLessThan(span * 0.06),
  ).toPass();

  // The close-up is pinched as well.
  const narrow = await number(page, 'Width');
  await ways.getByRole('button', { name: 'Wall' }).tap();
  await wallFrame(page, 'sunpane/square-post').tap();
  await page.keyboard.press('Enter');
  const box = await page.getByTestId('close-up').boundingBox();
  if (!box) throw new Error('There is no close-up.');
  const centre = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await touch(
    page,
    [-1, 1].map((way) => ({
      from: { x: centre.x + way * 60, y: centre.y },
      to: { x: centre.x + way * 40, y: centre.y },
    })),
  );
  await ways.getByRole('button', { name: 'Reading' }).tap();
  await expect(async () =>
    expect(Math.abs((await number(page, 'Width')) - narrow * 1.5)).toBeLessThan(narrow * 0.08),
  ).toPass();
  await undoAll(page);
});
