import { defineConfig } from 'vitest/config';

const include = (process.env.INKWELL_WATCHERS ?? '**').split(',').map((folder) => `core/${folder}/**/*.test.ts`);

// The tests that `npm run mutants` runs on every mutant of a folder. Their files share what they import, since core keeps no
// state, and to load it anew for every mutant takes longer than the tests.
export default defineConfig({
  test: {
    include,
    exclude: ['core/planes/assembly/**'],
    setupFiles: ['bench/mutantsSetup.ts'],
    testTimeout: 60_000,
    isolate: false,
  },
});
