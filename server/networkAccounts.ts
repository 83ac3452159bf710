import { readFile, rename, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { z } from 'zod';

/** A network where it can be reached, and the token of the account there. */
const NetworkAccountSchema = z.object({
  slug: z.string(),
  name: z.string(),
  address: z.url({ protocol: /^https?$/ }),
  token: z.string(),
});
export type NetworkAccount = z.infer<typeof NetworkAccountSchema>;

const FileSchema = z.object({ standIns: z.array(NetworkAccountSchema) });

/** Where the accounts are written down that the program has. */
export const networksFile = (dataFolder: string): string => join(dataFolder, 'networks.json');

/** Writes accounts down, at once or not at all, in a file that only its own user may read: it holds the tokens. */
export async function writeAccounts(path: string, standIns: readonly NetworkAccount[]): Promise<void> {
  const unfinished = join(dirname(path), `.networks-${process.pid}`);
  await writeFile(unfinished, JSON.stringify({ standIns }, null, 2), { mode: 0o600 });
  await rename(unfinished, path);
}

/** The accounts as they are written down now: a network that was started again has another address. None where nothing is written. */
export async function readAccounts(path: string): Promise<NetworkAccount[]> {
  const text = await readFile(path, 'utf8').catch(() => null);
  if (text === null) return [];
  try {
    return FileSchema.parse(JSON.parse(text)).standIns;
  } catch (error) {
    throw new Error(`${path} is not as the simulated networks write it. Start the program again.`, { cause: error });
  }
}
