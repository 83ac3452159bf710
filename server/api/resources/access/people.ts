import { MemberSchema, RoleSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { DoorServices } from '../../../services.ts';
import { listMembers } from '../../../store/access/members.ts';
import { changeRole, takeOut } from '../../../tasks/access/people.ts';
import { Resource } from '../../contracts/resource.ts';
import { askerOf, workspaceAsked } from '../../door/access.ts';
import { accessOf } from './needsAccounts.ts';

/** No program changes who may come in. */
const owners = { pagesOnly: true, needs: 'owner' } as const;

/** Who is in a workspace, and may do what. */
export function people(services: DoorServices): Resource {
  const routes = new Resource('/people', 'People');

  routes.get(
    '',
    { does: 'Lists everybody who is in this workspace.', ...owners, answers: z.array(MemberSchema) },
    (_asked, response) => listMembers(accessOf(services).db, workspaceAsked(response).id),
  );

  routes.patch(
    '/:id',
    { does: 'Changes what somebody may do here.', ...owners, takes: z.object({ role: RoleSchema }) },
    ({ id, body, request }, response) =>
      changeRole(accessOf(services), workspaceAsked(response).id, id, body.role, askerOf(request, response)),
  );

  routes.delete(
    '/:id',
    {
      does: 'Takes somebody out of this workspace, with their tokens for it. Who is in no other loses the account. What the person made stays.',
      ...owners,
    },
    ({ id, request }, response) =>
      takeOut(accessOf(services), workspaceAsked(response).id, id, askerOf(request, response)),
  );

  return routes;
}
