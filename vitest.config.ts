import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    // One for each core that is planned for: every file of the integration tests has a program and a database of its own.
    maxWorkers: 2,
    // To load the program anew for each file takes longer than many files. What a file starts it stops.
    isolate: false,
    projects: [
      { test: { name: 'unit', include: ['core/**/*.test.ts', 'web/**/*.test.ts'], testTimeout: 60_000 } },
      {
        test: {
          name: 'integration',
          include: ['server/**/*.test.ts', 'demo/**/*.test.ts'],
          globalSetup: 'server/testing/globalSetup.ts',
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
    ],
  },
});
