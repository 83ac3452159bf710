import { InvitationSchema, MadeInvitationSchema, NewInvitationSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { DoorServices } from '../../../services.ts';
import { listInvitations } from '../../../store/access/invitations.ts';
import { invite, withdraw } from '../../../tasks/access/invitations.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';
import { askerOf, signedIn, workspaceAsked } from '../../door/access.ts';
import { accessOf } from './needsAccounts.ts';

const owners = { pagesOnly: true, needs: 'owner' } as const;

/** How people come in. */
export function invitations(services: DoorServices): Resource {
  const routes = new Resource('/invitations', 'Invitations');

  routes.get(
    '',
    {
      does: 'Lists the invitations to this workspace that nobody has taken yet.',
      ...owners,
      answers: z.array(InvitationSchema),
    },
    (_asked, response) => listInvitations(accessOf(services).db, workspaceAsked(response).id),
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
      return invite(accessOf(services), workspaceAsked(response).id, person, body, askerOf(request, response));
    },
  );

  routes.delete(
    '/:id',
    { does: 'Withdraws an invitation. Its link holds no more.', ...owners },
    ({ id, request }, response) =>
      withdraw(accessOf(services), workspaceAsked(response).id, id, askerOf(request, response)),
  );

  return routes;
}
