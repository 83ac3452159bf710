import { Router } from 'express';
import { z } from 'zod';
import { smallerPicture } from '../../imaging/encoding/smallerPicture.ts';
import { sniff } from '../../imaging/intake/looking/sniff.ts';
import type { Services } from '../../services.ts';
import { blobBytes } from '../../store/library/blobs.ts';
import { dryRunsOfProject, findDryRun } from '../../store/projects/dryRuns.ts';
import { cancelDryRun, checkPicture, dryRunOfDelivery, dryRunOfFrame } from '../../tasks/dryRunning/requestDryRun.ts';
import { forEver } from '../../tasks/plans/askedFrame.ts';
import { notFound, orNotFound } from '../../userError.ts';
import { drawing } from '../drawing.ts';
import { idOf } from '../params.ts';

/** Of a delivery, or of one frame as it was seen. */
export const DryRunRequestSchema = z.union([
  z.strictObject({ deliveryId: z.uuid() }),
  z.strictObject({ frameId: z.uuid(), plan: z.string().max(100) }),
]);
export const PictureSchema = z.object({ width: z.coerce.number().int().min(16).max(2000).optional() });
const HashSchema = z.string().regex(/^[0-9a-f]{64}$/);

export function dryRunsRouter(services: Services): Router {
  const { db } = services;
  const router = Router();

  router.get('/', async (request, response) => {
    response.json(await dryRunsOfProject(db, z.uuid().parse(request.query.project)));
  });

  router.post('/', async (request, response) => {
    const asked = DryRunRequestSchema.parse(request.body);
    const run =
      'deliveryId' in asked
        ? await dryRunOfDelivery(services, asked.deliveryId)
        : await dryRunOfFrame(services, asked.frameId, asked.plan);
    response.status(202).json(run);
  });

  router.get('/:id', async (request, response) => {
    response.json(orNotFound(await findDryRun(db, idOf(request)), 'This dry run'));
  });

  router.post('/:id/cancel', async (request, response) => {
    response.json(await cancelDryRun(services, idOf(request)));
  });

  // A picture that it uploads, or that came back. The address names the bytes.
  router.get(
    '/:id/pictures/:sha256',
    drawing(async (request, response) => {
      const sha256 = HashSchema.safeParse(request.params.sha256);
      if (!sha256.success) throw notFound('This address');
      await checkPicture(services, idOf(request), sha256.data);
      const { width } = PictureSchema.parse(request.query);
      const data = orNotFound(await blobBytes(db, sha256.data), 'This picture');
      response.setHeader('Cache-Control', forEver);
      if (width === undefined) response.type(sniff(data)).send(data);
      else response.type('webp').send(await smallerPicture(data, width));
    }),
  );

  return router;
}
