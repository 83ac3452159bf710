import { existsSync, statSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, utimes, writeFile } from 'node:fs/promises';
import { basename, dirname, join, relative } from 'node:path';
import { build, type Plugin } from 'esbuild';
import { glob } from 'tinyglobby';
import { bundledName, startedBy, startingBundled } from './started.ts';

const root = join(import.meta.dirname, '..', '..');
/** Where the bundle of this clone lies. */
export const bundleFolder = join(root, 'dist');

/** What is started by a command, by its name in the bundle. */
const programs = {
  main: 'server/main.ts',
  commandLine: 'server/commandLine/main.ts',
  seed: 'demo/seed.ts',
  dryRun: 'demo/dryRun.ts',
} as const;

/** Where a program lies in the bundle. */
export const bundled = (program: keyof typeof programs): string => join(bundleFolder, `${program}.js`);

/** Names the files of the last bundle. */
const listFile = join(bundleFolder, '.files');
const lastFiles = async (): Promise<string[]> =>
  existsSync(listFile) ? (await readFile(listFile, 'utf8')).split('\n').filter((name) => name !== '') : [];

/** Another start may put the same together at this moment. */
function unlessGone(error: unknown): void {
  if (!(error instanceof Error && 'code' in error && error.code === 'ENOENT')) throw error;
}

const weekMs = 7 * 24 * 3600 * 1000;

/** Our own modules are put together, packages are left where they are. */
const ownOnly: Plugin = {
  name: 'own modules only',
  setup: ({ onResolve }) => {
    onResolve({ filter: /^[^./]/ }, ({ path }) =>
      path.startsWith('@inkwell/') ? undefined : { path, external: true },
    );
  },
};

/** Sources go on finding what lies beside them, and start what lies in the bundle. */
const placed: Plugin = {
  name: 'places of sources',
  setup: ({ onLoad }) => {
    onLoad({ filter: /\.ts$/ }, async ({ path }) => {
      const code = await readFile(path, 'utf8');
      if (!code.includes('import.meta')) return null;
      const [toFile, toFolder] = [relative(bundleFolder, path), relative(bundleFolder, dirname(path))];
      const contents = startingBundled(code, (name) => `new URL('./${name}', IN_BUNDLE)`)
        .replaceAll('import.meta.url', `new URL('${toFile}', import.meta.url).href`)
        .replaceAll('import.meta.dirname', `(import.meta.dirname + '/${toFolder}')`)
        .replaceAll('IN_BUNDLE', 'import.meta.url');
      return { contents, loader: 'ts' };
    });
  },
};

/** All modules that others start in processes or threads of their own. */
async function startedModules(): Promise<string[]> {
  const sources = await glob(['server/**/*.ts', 'demo/**/*.ts'], {
    cwd: root,
    ignore: ['**/*.test.ts', '**/node_modules/**', 'server/testing/**', 'server/bundling/**'],
    absolute: true,
  });
  const found = await Promise.all(sources.map(async (source) => startedBy(await readFile(source, 'utf8'), source)));
  return [...new Set(found.flat())];
}

/**
 * Puts the program together in few files: what starts as a process or a thread has little to load then, and no TypeScript to translate.
 * Files are put in place one by one, those that are started last, so that a program that runs meanwhile meets whole ones. Those of the
 * bundle before stay for a week from now on, since it may still load them.
 *
 * @throws where a source cannot be read or translated
 */
export async function bundle(): Promise<void> {
  const started = (await startedModules()).map((source) => [basename(bundledName(source), '.js'), source]);
  const entryPoints: Record<string, string> = { ...programs, ...Object.fromEntries(started) };
  if (Object.keys(entryPoints).length < Object.keys(programs).length + started.length)
    throw new Error('Two modules that are started have the same name.');
  const { outputFiles } = await build({
    entryPoints,
    absWorkingDir: root,
    outdir: bundleFolder,
    chunkNames: 'part-[hash]',
    bundle: true,
    splitting: true,
    write: false,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    logLevel: 'error',
    plugins: [ownOnly, placed],
  });
  await mkdir(bundleFolder, { recursive: true });
  // What the start command has noted of the one before does not hold for this one.
  await rm(join(bundleFolder, '.built'), { force: true });
  const now = new Date();
  for (const name of await lastFiles()) await utimes(join(bundleFolder, name), now, now).catch(unlessGone);
  await writeFile(listFile, outputFiles.map(({ path }) => `${basename(path)}\n`).join(''));
  const isEntry = (path: string) => basename(path, '.js') in entryPoints;
  const inOrder = outputFiles.toSorted((a, b) => Number(isEntry(a.path)) - Number(isEntry(b.path)));
  for (const { path, contents } of inOrder) {
    const aside = `${path}.${process.pid}`;
    await writeFile(aside, contents);
    await rename(aside, path);
  }
  for (const name of await readdir(bundleFolder)) {
    const path = join(bundleFolder, name);
    const { mtimeMs } = statSync(path, { throwIfNoEntry: false }) ?? {};
    if (mtimeMs !== undefined && Date.now() - mtimeMs > weekMs) await rm(path, { force: true });
  }
}
