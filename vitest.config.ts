import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { defineConfig } from 'vitest/config';
import { startingBundled } from './server/bundling/started.ts';

const bundled = pathToFileURL(join(import.meta.dirname, 'dist/'));

export default defineConfig({
  plugins: [
    {
      // Processes and threads of a program that is tested are started from the bundle: to translate them takes longer than their work.
      name: 'start what is bundled',
      enforce: 'pre',
      transform: (code, id) =>
        id.endsWith('.ts') ? startingBundled(code, (name) => `new URL('${new URL(name, bundled)}')`) : null,
    },
  ],
  test: {
    // One for each core that is planned for: every file of the integration tests has a program and a database of its own.
    maxWorkers: 2,
    // To load the program anew for each file takes longer than many files. What a file starts it stops.
    isolate: false,
    projects: [
      {
        extends: true,
        test: { name: 'unit', include: ['core/**/*.test.ts', 'web/**/*.test.ts'], testTimeout: 60_000 },
      },
      {
        extends: true,
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
