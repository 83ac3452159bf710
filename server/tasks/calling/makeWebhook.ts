import { randomBytes } from 'node:crypto';
import type { MadeWebhook, NewWebhook } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { addWebhook } from '../../store/access/webhooks.ts';
import { checkHost } from './hosts.ts';

const bytesOfChance = 32;

/** Makes a webhook. @throws UserError where its address is not one that may be called */
export async function makeWebhook(
  { db, hookHosts }: Pick<Services, 'db' | 'hookHosts'>,
  { url }: NewWebhook,
): Promise<MadeWebhook> {
  checkHost(url, hookHosts);
  // As the Standard Webhooks specification writes secrets.
  const secret = `whsec_${randomBytes(bytesOfChance).toString('base64')}`;
  return { webhook: await addWebhook(db, url, secret), secret };
}
