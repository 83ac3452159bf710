import { InvitationSchema, MadeInvitationSchema, NewInvitationSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { listInvitations } from '../../../store/access/invitations.ts';
import { invite, withdraw } from '../../../tasks/access/invitations.ts';
import { orNotFound } from '../../../userError.ts';
import { askerOf, signedIn } from '../../access.ts';
import { Resource } from '../../resource.ts';
import { accessOf } from './needsAccounts.ts';

const owners = { pagesOnly: true, needs: 'owner' } as const;

/** How people come in. */
export function invitations(services: Services): Resource {
  const routes = new Resource('/invitations', 'Invitations');

  routes.get(
    '',
    { does: 'Lists the invitations that nobody has taken yet.', ...owners, answers: z.array(InvitationSchema) },
    () => listInvitations(accessOf(services).db),
  );

  routes.post(
    '',
    {
      does: 'Invites somebody by mail. The link is told here once as well.',
      ...owners,
      takes: NewInvitationSchema,
      answers: MadeInvitationSchema,
      status: 201,
    },
    ({ body, request }, response) => {
      const { person } = orNotFound(signedIn(response), 'This account');
      return invite(accessOf(services), person, body, askerOf(request, response));
    },
  );

  routes.delete(
    '/:id',
    { does: 'Withdraws an invitation. Its link holds no more.', ...owners },
    ({ id, request }, response) => withdraw(accessOf(services), id, askerOf(request, response)),
  );

  return routes;
}
