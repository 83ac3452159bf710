import { defaultPattern, fileNameWord } from '@inkwell/core/naming';
import { Router } from 'express';
import { z } from 'zod';
import { smallerPicture } from '../../imaging/encoding/smallerPicture.ts';
import type { Services } from '../../services.ts';
import { deliveriesOfProject, findDelivery } from '../../store/projects/deliveries.ts';
import { archiveOf } from '../../tasks/delivering/archive.ts';
import { deliveredFile, posted, tickPost } from '../../tasks/delivering/deliveredFiles.ts';
import { endDelivery, requestDelivery } from '../../tasks/delivering/requestDelivery.ts';
import { forEver } from '../../tasks/plans/askedFrame.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { drawing } from '../drawing.ts';
import { idOf } from '../params.ts';

export const DeliverSchema = z.object({
  projectId: z.uuid(),
  pattern: z.string().max(200).default(defaultPattern),
  /** Only these frames; all where it is left out. */
  only: z.array(z.uuid()).min(1).max(5000).optional(),
  /** The plans that the person has seen, of the frames that are to be delivered: what has changed since is not delivered unseen. */
  seen: z.array(z.object({ frameId: z.uuid(), plan: z.string().max(100) })).max(5000),
});

export const PostedSchema = z.object({ post: z.string().min(1).max(300), posted: z.boolean() });
export const ArchiveSchema = z.object({ network: z.string().min(1).max(200).optional() });
export const FileSchema = z.object({
  name: z.string().min(1).max(300),
  width: z.coerce.number().int().min(16).max(2000).optional(),
});

export function deliveriesRouter(services: Services): Router {
  const { db } = services;
  const router = Router();

  router.get('/', async (request, response) => {
    response.json(await deliveriesOfProject(db, z.uuid().parse(request.query.project)));
  });

  router.post('/', async (request, response) => {
    response.status(202).json(await requestDelivery(services, DeliverSchema.parse(request.body)));
  });

  router.get('/:id', async (request, response) => {
    response.json(orNotFound(await findDelivery(db, idOf(request)), 'This delivery').delivery);
  });

  router.post('/:id/cancel', async (request, response) => {
    response.json(await endDelivery(services, idOf(request)));
  });

  // Which posts of it are posted: several people look at it.
  router.get('/:id/posted', async (request, response) => {
    response.json(await posted(services, idOf(request)));
  });

  router.post('/:id/posted', async (request, response) => {
    const { post, posted: isPosted } = PostedSchema.parse(request.body);
    response.json(await tickPost(services, idOf(request), post, isPosted));
  });

  // A delivered file never changes: as it is to keep, or in small to look at.
  router.get(
    '/:id/file',
    drawing(async (request, response) => {
      const { name, width } = FileSchema.parse(request.query);
      const { line, data } = await deliveredFile(services, idOf(request), name);
      response.setHeader('Cache-Control', forEver);
      if (width !== undefined) response.type('webp').send(await smallerPicture(data, width));
      else response.attachment(line.file).type(line.format).send(data);
    }),
  );

  // The whole kit, or that of one network.
  router.get('/:id/archive', async (request, response) => {
    const { network = null } = ArchiveSchema.parse(request.query);
    const { stored, delivery } = orNotFound(await findDelivery(db, idOf(request)), 'This delivery');
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
  });

  return router;
}
