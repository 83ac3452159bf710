import { defineConfig } from '@playwright/test';
import base from './playwright.config.ts';

/** Takes the pictures of docs/screenshots anew: `npm run screenshots`, with DATABASE_URL set. */
export default defineConfig({
  ...base,
  testDir: './screenshots',
  reporter: 'list',
});
