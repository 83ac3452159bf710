import { readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const require = createRequire(import.meta.url);

/** Where a font file lies that a person might have. */
export function fontFile(family: 'caveat' | 'kalam'): string {
  const folder = join(dirname(require.resolve(`@expo-google-fonts/${family}/package.json`)), '700Bold');
  return join(folder, readdirSync(folder).find((name) => name.endsWith('.ttf')) ?? '');
}
