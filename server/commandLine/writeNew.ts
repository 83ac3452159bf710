import { mkdir, open, writeFile } from 'node:fs/promises';
import { dirname, join, parse } from 'node:path';
import { formatExtension, type ImageFormat } from '@inkwell/core/model';

/** Where a file goes that was made of another: by the name of that, in a folder. @param number from the second try on */
export type FreePath = (number: number) => string;

export const freePath =
  (folder: string, madeOf: string, format: ImageFormat): FreePath =>
  (number) =>
    join(folder, `${parse(madeOf).name}${number > 1 ? `-${number}` : ''}.${formatExtension[format]}`);

/** Writes a file under the first name that is free: none is ever replaced. @returns where it is */
export async function writeNew(path: FreePath, data: Buffer): Promise<string> {
  await mkdir(dirname(path(1)), { recursive: true });
  for (let number = 1; ; number += 1) {
    try {
      const file = await open(path(number), 'wx');
      await file.writeFile(data).finally(() => file.close());
      return path(number);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
  }
}

/** Writes a new file. @throws where it is there already */
export async function writeAs(path: string, text: string): Promise<string> {
  await mkdir(dirname(path), { recursive: true });
  await writeFile(path, text, { flag: 'wx' });
  return path;
}
