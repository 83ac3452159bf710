import { PersonSchema, RoleSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { listPeople } from '../../../store/access/people.ts';
import { changeRole, takeAway } from '../../../tasks/access/people.ts';
import { askerOf } from '../../access.ts';
import { Resource } from '../../resource.ts';
import { accessOf } from './needsAccounts.ts';

/** No program changes who may come in. */
const owners = { pagesOnly: true, needs: 'owner' } as const;

/** Who has an account, and may do what. */
export function people(services: Services): Resource {
  const routes = new Resource('/people', 'People');

  routes.get('', { does: 'Lists everybody who has an account.', ...owners, answers: z.array(PersonSchema) }, () =>
    listPeople(accessOf(services).db),
  );

  routes.patch(
    '/:id',
    { does: 'Changes what somebody may do.', ...owners, takes: z.object({ role: RoleSchema }) },
    ({ id, body, request }, response) => changeRole(accessOf(services), id, body.role, askerOf(request, response)),
  );

  routes.delete(
    '/:id',
    { does: 'Takes an account away for good, with its tokens. What the person made stays.', ...owners },
    ({ id, request }, response) => takeAway(accessOf(services), id, askerOf(request, response)),
  );

  return routes;
}
