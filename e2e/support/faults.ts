import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** WCAG 2.2, levels A and AA. */
const rules = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** What is wrong on the page as it stands, one line for each kind of fault. */
export async function faults(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).withTags(rules).analyze();
  return violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(' ')).join(' | ')}`);
}

/** Looks for faults in a large and in a small window; nothing is wider than either. */
export async function faultless(page: Page, what: string): Promise<void> {
  for (const [width, height] of [
    [390, 844],
    [1280, 800],
  ] as const) {
    await page.setViewportSize({ width, height });
    expect.soft(await faults(page), `${what}, ${width} px wide`).toEqual([]);
    expect.soft(await page.evaluate(() => document.documentElement.scrollWidth), what).toBeLessThanOrEqual(width);
  }
}
