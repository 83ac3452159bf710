import { NamedWorkspaceSchema, WorkspaceSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { DoorServices } from '../../../services.ts';
import { listWorkspaces, workspacesOf } from '../../../store/access/workspaces.ts';
import { makeWorkspace, renameWorkspace } from '../../../tasks/access/workspaces.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';
import { askerOf, personAsking, workspaceAsked } from '../../door/access.ts';
import { accessOf } from './needsAccounts.ts';

/** The workspaces of whoever asks. */
export function workspaces(services: DoorServices): Resource {
  const routes = new Resource('/workspaces', 'Workspaces');

  routes.get(
    '',
    {
      does: 'Lists the workspaces that you are in. The API of each lies below /api/v1/in/ID; what names none is asked in the first of these.',
      needs: 'account',
      answers: z.array(WorkspaceSchema),
    },
    (_asked, response) => {
      const person = personAsking(response);
      return person ? workspacesOf(services.whole, person.id) : listWorkspaces(services.whole);
    },
  );

  routes.post(
    '',
    {
      does: 'Makes a workspace with nothing in it, which you own. Nothing of the others is seen there.',
      pagesOnly: true,
      needs: 'owner',
      takes: NamedWorkspaceSchema,
      answers: z.object({ workspaceId: z.uuid() }),
      status: 201,
    },
    async ({ body, request }, response) => {
      const access = accessOf(services);
      const person = orNotFound(personAsking(response), 'This account');
      return { workspaceId: await makeWorkspace(access, body.name, person, askerOf(request, response)) };
    },
  );

  routes.patch(
    '',
    { does: 'Gives this workspace another name.', pagesOnly: true, needs: 'owner', takes: NamedWorkspaceSchema },
    ({ body, request }, response) =>
      renameWorkspace(accessOf(services), workspaceAsked(response).id, body.name, askerOf(request, response)),
  );

  return routes;
}
