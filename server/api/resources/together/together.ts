import { PresenceSchema } from '@inkwell/core/model';
import type { DoorServices } from '../../../services.ts';
import { tellPresence } from '../../../store/listening.ts';
import { UserError } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';
import { personAsking, workspaceAsked } from '../../door/access.ts';
import type { Streams } from '../../sending/streams.ts';

const eventStream = 'text/event-stream';

/** What people who work at the same time hear of each other. */
export const together =
  (streams: Streams) =>
  ({ whole }: DoorServices): Resource => {
    const routes = new Resource('/together', 'Together');

    routes.get(
      '/events',
      {
        does: 'Tells of changes and of who is where as they happen, as server-sent events: ask with Accept: text/event-stream. Each says what has changed; what it is now is asked for.',
        sends: [eventStream],
      },
      async ({ request }, response) => {
        if (!request.headers.accept?.includes(eventStream)) {
          throw new UserError(`This is a stream that does not end. Ask with the header Accept: ${eventStream}.`, 400);
        }
        streams.open(response, workspaceAsked(response).id, response.locals.mayStill as () => Promise<boolean>);
      },
    );

    routes.post(
      '/presence',
      {
        does: 'Tells the others where you are at work. Without accounts nobody is told.',
        pagesOnly: true,
        needs: 'viewer',
        changesNothing: true,
        takes: PresenceSchema,
      },
      async ({ body }, response) => {
        const person = personAsking(response);
        if (person) await tellPresence(whole, workspaceAsked(response).id, { ...body, name: person.name });
      },
    );

    return routes;
  };
