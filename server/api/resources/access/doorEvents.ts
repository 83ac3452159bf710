import { DoorEventSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { listDoorEvents } from '../../../store/access/doorEvents.ts';
import { Resource } from '../../resource.ts';
import { accessOf } from './needsAccounts.ts';

/** What happened at the door. */
export function doorEvents(services: Services): Resource {
  const routes = new Resource('/door-events', 'What happened at the door');

  routes.get(
    '',
    {
      does: 'Lists who came in, was refused, or changed who may come in: the newest 200, kept for half a year.',
      pagesOnly: true,
      needs: 'owner',
      answers: z.array(DoorEventSchema),
    },
    () => listDoorEvents(accessOf(services).db),
  );

  return routes;
}
