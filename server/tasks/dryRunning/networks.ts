import type { NetworkStatus } from '@inkwell/core/model';
import type { NetworkAccount } from '../../networkAccounts.ts';
import { UserError } from '../../userError.ts';
import { NetworkAway, NetworkClient, NetworkRefused } from './networkClient.ts';

/** Which simulated networks there are, by their names. */
export const networksThere = (accounts: readonly NetworkAccount[]): NetworkStatus[] =>
  accounts.map(({ slug, name }) => ({ slug, name }));

/** Deletes everything that was posted to the simulated networks. @throws UserError naming those that could not be emptied */
export async function emptyNetworks(accounts: readonly NetworkAccount[]): Promise<void> {
  const left: string[] = [];
  for (const account of accounts) {
    try {
      await new NetworkClient(account).empty();
    } catch (error) {
      if (!(error instanceof NetworkAway) && !(error instanceof NetworkRefused)) throw error;
      left.push(account.name);
    }
  }
  if (left.length > 0) {
    throw new UserError(`${left.join(', ')} could not be emptied; the others are empty. Try again in a moment.`, 503);
  }
}
