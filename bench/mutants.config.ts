import { defineConfig } from 'vitest/config';

// The tests that `npm run mutants` runs on every mutant: those of core alone. Their files share what they import, since core
// keeps no state, and to load it anew for every mutant takes longer than the tests.
export default defineConfig({ test: { include: ['core/**/*.test.ts'], testTimeout: 60_000, isolate: false } });
