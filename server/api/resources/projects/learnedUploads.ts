import { LearnedUploadSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { forgetUpload, learnUpload, learnedUploads as listed } from '../../../tasks/surviving/learnedUploads.ts';
import { Resource } from '../../contracts/resource.ts';

const LearnSchema = z.object({ frameId: z.uuid(), plan: z.string() });

/** The ways to upload that are used for all frames of their places. */
export function learnedUploads(services: Services): Resource {
  const routes = new Resource('/learned-uploads', 'Learned uploads');

  routes.get(
    '',
    { does: 'Lists the ways to upload that are used for places.', answers: z.array(LearnedUploadSchema) },
    () => listed(services),
  );

  routes.post(
    '',
    {
      does: 'Uses what was found for a frame for all new frames of its place.',
      takes: LearnSchema,
      answers: LearnedUploadSchema,
      status: 201,
    },
    ({ body }) => learnUpload(services, body.frameId, body.plan),
  );

  routes.delete(
    '/:network/:place',
    { does: 'Uploads new frames of a place as the place says again.' },
    async ({ params }) => {
      await forgetUpload(services, `${params.network}/${params.place}`);
    },
  );

  return routes;
}
