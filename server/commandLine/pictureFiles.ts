import { stat } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { glob, isDynamicPattern } from 'tinyglobby';
import { Misuse } from './codes.ts';

/** Files of a folder that are taken for pictures; a file that is named is taken whatever it is called. */
const pictureNames = '**/*.{jpg,jpeg,png,webp,tif,tiff,avif,heic,heif,jxl,bmp,gif,svg}';

/**
 * The files that are meant by paths, folders and patterns, each once, in the order of their names within each.
 *
 * @param folder that relative ones are meant from
 * @throws Misuse where one means no file
 */
export async function pictureFiles(named: readonly string[], folder: string): Promise<string[]> {
  const files = new Set<string>();
  for (const name of named) {
    const found = await filesOf(name, folder);
    if (found.length === 0)
      throw new Misuse(`No picture is meant by ${name}. Name a file, a folder with pictures, or a pattern.`);
    for (const file of found) files.add(file);
  }
  return [...files];
}

async function filesOf(name: string, folder: string): Promise<string[]> {
  const path = resolve(folder, name);
  const there = await stat(path).catch(() => null);
  if (there?.isFile()) return [path];
  if (there?.isDirectory())
    return inOrder(await glob(pictureNames, { cwd: path, absolute: true, caseSensitiveMatch: false }));
  if (!isDynamicPattern(name)) throw new Misuse(`There is no file or folder ${name}.`);
  return inOrder(await glob(name, { cwd: folder, absolute: true, caseSensitiveMatch: false }));
}

const inOrder = (paths: readonly string[]): string[] =>
  paths.map((path) => join(path)).sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
