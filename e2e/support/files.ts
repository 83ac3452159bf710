import { readFile } from 'node:fs/promises';
import { unzip } from '@inkwell/server/testing/unzip.ts';
import type { Download } from '@playwright/test';

/** All files of a downloaded archive by name. */
export async function filesOf(download: Download): Promise<Map<string, Buffer>> {
  return unzip(await readFile(await download.path()));
}
