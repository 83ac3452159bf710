import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'unit', include: ['core/**/*.test.ts', 'web/**/*.test.ts'], testTimeout: 60_000 } },
      {
        test: {
          name: 'integration',
          include: ['server/**/*.test.ts', 'demo/**/*.test.ts'],
          globalSetup: 'server/testing/database.ts',
          testTimeout: 240_000,
          hookTimeout: 240_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
