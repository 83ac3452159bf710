import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

const reports = process.env.INKWELL_CHECK ?? join(import.meta.dirname, '..', '.inkwell');

export default defineConfig({
  testDir: './tests',
  globalSetup: './support/program.ts',
  outputDir: join(reports, 'e2e-results'),
  reporter: [['list'], ['json', { outputFile: join(reports, 'playwright.json') }]],
  // Each worker has a program, a database and a browser of its own, for one of the two cores that are planned for.
  workers: 2,
  // What is waited for is computed, and takes as long as the machine needs: these end only what hangs.
  timeout: 900_000,
  expect: { timeout: 480_000 },
  use: {
    viewport: { width: 1280, height: 800 },
    // What moves while it opens can be missed by a press on a busy machine; one test has all motion.
    contextOptions: { reducedMotion: 'reduce' },
    // A trace of every test costs a third of the time; `--trace on` records one when it is wanted.
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-quic',
        '--no-first-run',
        // Letters stand where they do in a window, not on whole pixels.
        '--font-render-hinting=none',
      ],
    },
  },
});
