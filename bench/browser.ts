import { type Browser, chromium } from '@playwright/test';

/** Debian's browser, without a window. */
export const openBrowser = (): Promise<Browser> =>
  chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: process.getuid?.() === 0 ? ['--no-sandbox'] : [],
  });

/** The value that a share of some values, 0..1, lies below. */
export const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length * share)] ?? Number.NaN;
