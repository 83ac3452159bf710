import { DryRunSchema, DryRunSummarySchema } from '@inkwell/core/model';
import { z } from 'zod';
import { smallerPicture } from '../../../imaging/encoding/smallerPicture.ts';
import { sniff } from '../../../imaging/intake/looking/sniff.ts';
import type { Services } from '../../../services.ts';
import { blobBytes } from '../../../store/blobs/blobs.ts';
import { dryRunsOfProject, findDryRun } from '../../../store/projects/dryRuns.ts';
import {
  cancelDryRun,
  checkPicture,
  dryRunOfDelivery,
  dryRunOfFrame,
} from '../../../tasks/dryRunning/requestDryRun.ts';
import { forEver } from '../../../tasks/plans/askedFrame.ts';
import { notFound, orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';

/** Of a delivery, or of one frame as it was seen. */
const DryRunRequestSchema = z.union([
  z.strictObject({ deliveryId: z.uuid() }),
  z.strictObject({ frameId: z.uuid(), plan: z.string().max(100) }),
]);
const PictureSchema = z.object({ width: z.coerce.number().int().min(16).max(2000).optional() });
const HashSchema = z.string().regex(/^[0-9a-f]{64}$/);

export function dryRuns(services: Services): Resource {
  const { db } = services;
  const routes = new Resource('/dry-runs', 'Dry runs');

  routes.get(
    '',
    {
      does: 'Lists the dry runs of a project.',
      query: z.object({ project: z.uuid() }),
      answers: z.array(DryRunSummarySchema),
    },
    ({ query }) => dryRunsOfProject(db, query.project),
  );

  routes.post(
    '',
    {
      does: 'Uploads a delivery, or one frame as it was seen, to the simulated networks.',
      takes: DryRunRequestSchema,
      answers: DryRunSchema,
      status: 202,
    },
    ({ body }) =>
      'deliveryId' in body
        ? dryRunOfDelivery(services, body.deliveryId)
        : dryRunOfFrame(services, body.frameId, body.plan),
  );

  routes.get('/:id', { does: 'A dry run, and what has come of it so far.', answers: DryRunSchema }, async ({ id }) =>
    orNotFound(await findDryRun(db, id), 'This dry run'),
  );

  routes.post('/:id/cancel', { does: 'Ends a dry run.', answers: DryRunSchema }, ({ id }) =>
    cancelDryRun(services, id),
  );

  // The address names the bytes.
  routes.get(
    '/:id/pictures/:sha256',
    {
      does: 'A picture that a dry run uploads, or that came back.',
      query: PictureSchema,
      draws: true,
      sends: ['image/jpeg', 'image/png', 'image/webp', 'image/avif'],
    },
    async ({ id, params, query: { width } }, response) => {
      const sha256 = HashSchema.safeParse(params.sha256);
      if (!sha256.success) throw notFound('This address');
      await checkPicture(services, id, sha256.data);
      const data = orNotFound(await blobBytes(db, sha256.data), 'This picture');
      response.setHeader('Cache-Control', forEver);
      if (width === undefined) response.type(sniff(data)).send(data);
      else response.type('webp').send(await smallerPicture(data, width));
    },
  );

  return routes;
}
