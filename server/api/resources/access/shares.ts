import { AllSharesSchema, OwnSharesSchema, ShareSchema } from '@inkwell/core/model';
import type { DoorServices } from '../../../services.ts';
import { allShares, changePersonShare, changeWorkspaceShare, ownShares } from '../../../tasks/sharing/shares.ts';
import { Resource } from '../../contracts/resource.ts';
import { askerOf, personAsking, workspaceAsked } from '../../door/access.ts';

/** How much of the machine people and workspaces may use, and how much they do. */
export function shares(services: DoorServices): Resource {
  const routes = new Resource('/shares', 'Shares');

  routes.get(
    '',
    { does: 'How much of the machine you and this workspace may use, and how much is used.', answers: OwnSharesSchema },
    (_asked, response) => ownShares(services, workspaceAsked(response).id, personAsking(response)?.id ?? null),
  );

  routes.get(
    '/all',
    {
      does: 'The same of everybody in this workspace; and of all workspaces, for owners of the first.',
      needs: 'owner',
      answers: AllSharesSchema,
    },
    (_asked, response) => {
      const { id, isFirst } = workspaceAsked(response);
      return allShares(services, id, isFirst);
    },
  );

  routes.patch(
    '/people/:id',
    { does: 'Gives somebody in this workspace another share.', pagesOnly: true, needs: 'owner', takes: ShareSchema },
    ({ id, body, request }, response) =>
      changePersonShare(services, workspaceAsked(response).id, id, body, askerOf(request, response)),
  );

  routes.patch(
    '/workspaces/:id',
    { does: 'Gives a workspace another share.', pagesOnly: true, needs: 'keeper', takes: ShareSchema },
    ({ id, body, request }, response) => changeWorkspaceShare(services, id, body, askerOf(request, response)),
  );

  return routes;
}
