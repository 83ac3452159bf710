import { FrameChangeSchema, SavedFrameSchema } from '@inkwell/core/model';
import { z } from 'zod';
import { partOfPicture } from '../../../imaging/stages/partOfPicture.ts';
import type { Services } from '../../../services.ts';
import { priorities } from '../../../store/work.ts';
import { askedFrame, forEver } from '../../../tasks/plans/askedFrame.ts';
import { finishedFiles } from '../../../tasks/plans/finishedFiles.ts';
import { queueMeasuring } from '../../../tasks/plans/measuredFrames.ts';
import { changeFrame } from '../../../tasks/projects/changeFrame.ts';
import { Resource } from '../../contracts/resource.ts';
import { sendPicture } from '../../sending/sendPicture.ts';

const SaveSchema = z.object({ version: z.int32().positive(), change: FrameChangeSchema });
const ProofSchema = z.object({
  plan: z.string(),
  finish: z.enum(['own', 'plain']).default('own'),
  width: z.coerce.number().int().min(16).max(12_000),
});
const MeasureSchema = z.object({ plan: z.string(), again: z.boolean().default(false) });
const side = z.coerce.number().int().min(1).max(5000);
const start = z.coerce.number().int().min(0);
const PixelsSchema = z.object({
  plan: z.string(),
  stage: z.enum(['plain', 'enlarged']),
  oversize: z.coerce.number().min(1).max(4).default(1),
  left: start.default(0),
  top: start.default(0),
  width: side.optional(),
  height: side.optional(),
});

const proofTypes = ['image/jpeg', 'image/png'];

export function frames(services: Services): Resource {
  const { db, proofs, copies } = services;
  const routes = new Resource('/frames', 'Frames');

  routes.patch(
    '/:id',
    {
      does: 'Changes a frame. Answers 409 with the frame as it is, where that is not of the version named.',
      takes: SaveSchema,
      answers: SavedFrameSchema,
    },
    ({ id, body }) => changeFrame(services, id, body.version, body.change),
  );

  routes.post(
    '/:id/measure',
    {
      does: 'Measures what is not known of a frame before everything else, because somebody looks at it. What could not be measured is tried again where that is asked for.',
      takes: MeasureSchema,
      status: 202,
    },
    async ({ id, body }) => {
      const { framed, planning } = await askedFrame(services, id, body.plan);
      await queueMeasuring(db, planning, [framed], priorities.looked, body.again);
    },
  );

  // The address names the plan, so its picture never changes and may be kept by the browser for ever.
  routes.get(
    '/:id/proof',
    { does: 'A proof of a frame, as its plan says.', query: ProofSchema, draws: true, sends: proofTypes },
    async ({ id, query }, response) => {
      const as = query.finish === 'plain' ? 'plainHash' : 'planHash';
      const { plan } = await askedFrame(services, id, query.plan, as);
      sendPicture(response, await proofs.get(plan, query.width));
    },
  );

  routes.get(
    '/:id/shown',
    {
      does: 'The file itself, or all its pieces put together again, as a program that opens it sees it: as soon as it is measured.',
      query: ProofSchema.pick({ plan: true, width: true }),
      draws: true,
      sends: proofTypes,
    },
    async ({ id, query }, response) => {
      const { plan } = await askedFrame(services, id, query.plan);
      sendPicture(response, await proofs.ofFiles(plan, query.width, () => finishedFiles(services, plan)));
    },
  );

  // Pixels for those who finish in the browser. Of a strip with a closing panel, the strip.
  routes.get(
    '/:id/pixels',
    {
      does: 'Pixels of a frame without loss, or a part of them: of the plain picture, or of the same enlarged.',
      query: PixelsSchema,
      draws: true,
      sends: ['image/png'],
    },
    async ({ id, query }, response) => {
      const { plan } = await askedFrame(services, id, query.plan, 'plainHash');
      const png = await partOfPicture(plan, query, await copies.get(plan.original));
      response.setHeader('Cache-Control', forEver);
      response.type('png').send(png);
    },
  );

  return routes;
}
