import { basename, dirname, resolve } from 'node:path';

/** How a source names a module beside it that is started in a process or a thread of its own. */
const naming = /new URL\('(\.\/\w+\.ts)', import\.meta\.url\)/g;

/** Under which name a module lies in the bundle. */
export const bundledName = (source: string): string => `${basename(source, '.ts')}.js`;

/** The modules that a source starts in processes or threads of their own, as paths. */
export const startedBy = (code: string, source: string): string[] =>
  [...code.matchAll(naming)].map(([, path = '']) => resolve(dirname(source), path));

/** A source that starts modules of the bundle instead. @param address where one is, as code, by its name in the bundle */
export const startingBundled = (code: string, address: (name: string) => string): string =>
  code.replace(naming, (_, path: string) => address(bundledName(path)));
