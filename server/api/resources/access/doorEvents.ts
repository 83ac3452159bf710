import { DoorEventSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { DoorServices } from '../../../services.ts';
import { listDoorEvents } from '../../../store/access/doorEvents.ts';
import { Resource } from '../../contracts/resource.ts';
import { workspaceAsked } from '../../door/access.ts';
import { accessOf } from './needsAccounts.ts';

/** What happened at the door. */
export function doorEvents(services: DoorServices): Resource {
  const routes = new Resource('/door-events', 'What happened at the door');

  routes.get(
    '',
    {
      does: 'Lists who of this workspace came in, was refused, or changed who may come in: the newest 200, kept for half a year.',
      pagesOnly: true,
      needs: 'owner',
      answers: z.array(DoorEventSchema),
    },
    (_asked, response) => listDoorEvents(accessOf(services).db, workspaceAsked(response)),
  );

  return routes;
}
