import { mkdir, rename, writeFile } from 'node:fs/promises';
import { basename, join, parse } from 'node:path';

/** Where files go that are refused, in the folder that is watched. */
export const refusedFolder = 'refused';

/** Moves a file aside, beside a text that says why. @returns where it is */
export async function refuse(watched: string, path: string, reason: string): Promise<string> {
  const folder = join(watched, refusedFolder);
  await mkdir(folder, { recursive: true });
  const { name, ext } = parse(basename(path));
  for (let number = 1; ; number += 1) {
    const to = join(folder, `${name}${number > 1 ? `-${number}` : ''}${ext}`);
    try {
      // The text is there first: whoever is broken off here leaves a file that is refused again.
      await writeFile(`${to}.txt`, `${basename(path)} was not framed.\n\n${reason}\n`, { flag: 'wx' });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'EEXIST') continue;
      throw error;
    }
    await rename(path, to);
    return to;
  }
}
