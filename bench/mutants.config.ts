import { defineConfig } from 'vitest/config';

// The tests that `npm run mutants` runs on every mutant: those of core alone.
export default defineConfig({ test: { include: ['core/**/*.test.ts'], testTimeout: 60_000 } });
