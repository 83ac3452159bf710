import { isLoopback } from '../../settings/loopback.ts';
import { UserError } from '../../userError.ts';

/**
 * Refuses addresses that webhooks may not have: they are called from where the program runs, which may see more than whoever
 * names them.
 *
 * @param listed hosts beside this machine, each a name, or a name and a port
 * @throws UserError
 */
export function checkHost(address: string, listed: readonly string[]): void {
  const url = new URL(address);
  if (url.username || url.password) {
    throw new UserError(
      'The address of a webhook holds no name and no password: calls are signed instead. Take them out of it.',
    );
  }
  if (isLoopback(url.hostname) || listed.includes(url.hostname) || listed.includes(url.host)) return;
  const others = listed.length > 0 ? ` and ${listed.join(', ')}` : '';
  throw new UserError(
    `Webhooks call only this machine${others}. To call ${url.hostname} as well, start the program with INKWELL_HOOK_HOSTS=${url.hostname}.`,
  );
}
