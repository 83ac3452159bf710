import { DeliverySchema } from '@inkwell/core/model';
import { defaultPattern, fileNameWord } from '@inkwell/core/naming';
import { z } from 'zod';
import { smallerPicture } from '../../../imaging/encoding/smallerPicture.ts';
import type { Services } from '../../../services.ts';
import { deliveriesOfProject, findDelivery } from '../../../store/projects/deliveries.ts';
import { archiveOf } from '../../../tasks/delivering/archive.ts';
import { deliveredFile, posted, tickPost } from '../../../tasks/delivering/deliveredFiles.ts';
import { endDelivery, requestDelivery } from '../../../tasks/delivering/requestDelivery.ts';
import { forEver } from '../../../tasks/plans/askedFrame.ts';
import { orNotFound, UserError } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';

const DeliverSchema = z.object({
  projectId: z.uuid(),
  pattern: z.string().max(200).default(defaultPattern),
  only: z.array(z.uuid()).min(1).max(5000).optional().describe('Only these frames; all where it is left out.'),
  seen: z
    .array(z.object({ frameId: z.uuid(), plan: z.string().max(100) }))
    .max(5000)
    .describe(
      'The plans that the person has seen, of the frames that are to be delivered: what has changed since is not delivered unseen.',
    ),
});
const PostedSchema = z.object({ post: z.string().min(1).max(300), posted: z.boolean() });
const ArchiveSchema = z.object({ network: z.string().min(1).max(200).optional() });
const FileSchema = z.object({
  name: z.string().min(1).max(300),
  width: z.coerce.number().int().min(16).max(2000).optional(),
});

export function deliveries(services: Services): Resource {
  const { db } = services;
  const routes = new Resource('/deliveries', 'Deliveries');

  routes.get(
    '',
    {
      does: 'Lists the deliveries of a project.',
      query: z.object({ project: z.uuid() }),
      answers: z.array(DeliverySchema),
    },
    ({ query }) => deliveriesOfProject(db, query.project),
  );

  routes.post(
    '',
    {
      does: 'Asks for a delivery of a project. A worker makes it; it is done as soon as its state says so.',
      takes: DeliverSchema,
      answers: DeliverySchema,
      status: 202,
    },
    ({ body }) => requestDelivery(services, body),
  );

  routes.get(
    '/:id',
    { does: 'A delivery, and what has come of it so far.', answers: DeliverySchema },
    async ({ id }) => orNotFound(await findDelivery(db, id), 'This delivery').delivery,
  );

  routes.post('/:id/cancel', { does: 'Ends a delivery before it is done.', answers: DeliverySchema }, ({ id }) =>
    endDelivery(services, id),
  );

  // Several people look at it.
  routes.get('/:id/posted', { does: 'Which posts of a delivery are posted.', answers: z.array(z.string()) }, ({ id }) =>
    posted(services, id),
  );

  routes.post(
    '/:id/posted',
    { does: 'Says that a post is posted, or is not.', takes: PostedSchema, answers: z.array(z.string()) },
    ({ id, body }) => tickPost(services, id, body.post, body.posted),
  );

  routes.get(
    '/:id/file',
    {
      does: 'A delivered file, which never changes: as it is to keep, or in small to look at.',
      query: FileSchema,
      draws: true,
      sends: ['image/jpeg', 'image/png', 'image/webp', 'image/avif'],
    },
    async ({ id, query: { name, width } }, response) => {
      const { line, data } = await deliveredFile(services, id, name);
      response.setHeader('Cache-Control', forEver);
      if (width !== undefined) response.type('webp').send(await smallerPicture(data, width));
      else response.attachment(line.file).type(line.format).send(data);
    },
  );

  routes.get(
    '/:id/archive',
    {
      does: 'The whole kit of a delivery that is done, or that of one network.',
      query: ArchiveSchema,
      sends: ['application/zip'],
    },
    async ({ id, query: { network = null } }, response) => {
      const { stored, delivery } = orNotFound(await findDelivery(db, id), 'This delivery');
      if (delivery.state !== 'done') {
        const isOver = delivery.state === 'failed' || delivery.state === 'cancelled';
        throw new UserError(
          isOver ? 'This delivery was not finished. Deliver again.' : 'This delivery is not finished yet.',
          409,
        );
      }
      if (network !== null && !delivery.files.some((file) => file.network === network)) {
        throw new UserError('Nothing of this delivery is for that network.', 404);
      }
      const day = delivery.createdAt.slice(0, 16).replace('T', '_').replace(':', '');
      const of = network === null ? '' : `_${fileNameWord(network) || 'network'}`;
      response.attachment(`${fileNameWord(stored.projectName) || 'delivery'}${of}_${day}.zip`);
      archiveOf(db, stored, delivery, network)
        .on('error', (error) => response.destroy(error))
        .pipe(response);
    },
  );

  return routes;
}
