import { MailSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { DoorServices } from '../../../services.ts';
import { listMails } from '../../../store/access/mails.ts';
import { Resource } from '../../contracts/resource.ts';
import { accessOf } from './needsAccounts.ts';

/** What the program has written to people. */
export function mails(services: DoorServices): Resource {
  const routes = new Resource('/mails', 'Mails');

  routes.get(
    '',
    {
      does: 'Lists the newest mails. Where no mail server is named, they are read here.',
      pagesOnly: true,
      needs: 'keeper',
      answers: z.array(MailSchema),
    },
    () => listMails(accessOf(services).db),
  );

  return routes;
}
