import { FrameChangeSchema } from '@inkwell/core/model';
import { Router } from 'express';
import { z } from 'zod';
import { partOfPicture } from '../../imaging/stages/partOfPicture.ts';
import type { Services } from '../../services.ts';
import { priorities } from '../../store/work.ts';
import { askedFrame, forEver } from '../../tasks/plans/askedFrame.ts';
import { finishedFiles } from '../../tasks/plans/finishedFiles.ts';
import { queueMeasuring } from '../../tasks/plans/measuredFrames.ts';
import { changeFrame } from '../../tasks/projects/changeFrame.ts';
import { drawing } from '../drawing.ts';
import { idOf } from '../params.ts';

export const SaveSchema = z.object({ version: z.int32().positive(), change: FrameChangeSchema });
export const ProofSchema = z.object({
  plan: z.string(),
  finish: z.enum(['own', 'plain']).default('own'),
  width: z.coerce.number().int().min(16).max(12_000),
});
export const MeasureSchema = z.object({ plan: z.string(), again: z.boolean().default(false) });
const side = z.coerce.number().int().min(1).max(5000);
const start = z.coerce.number().int().min(0);
export const PixelsSchema = z.object({
  plan: z.string(),
  stage: z.enum(['plain', 'enlarged']),
  oversize: z.coerce.number().min(1).max(4).default(1),
  left: start.default(0),
  top: start.default(0),
  width: side.optional(),
  height: side.optional(),
});

export function framesRouter(services: Services): Router {
  const { db, proofs, copies } = services;
  const router = Router();

  router.patch('/:id', async (request, response) => {
    const { version, change } = SaveSchema.parse(request.body);
    response.json(await changeFrame(services, idOf(request), version, change));
  });

  // Somebody is looking at this frame: what is not measured of it yet is measured before everything else. What could not be
  // measured is tried again where that is asked for.
  router.post('/:id/measure', async (request, response) => {
    const { plan: hash, again } = MeasureSchema.parse(request.body);
    const { framed, planning } = await askedFrame(services, idOf(request), hash);
    await queueMeasuring(db, planning, [framed], priorities.looked, again);
    response.status(202).json({});
  });

  // The address names the plan, so its picture never changes and may be kept by the browser for ever.
  router.get(
    '/:id/proof',
    drawing(async (request, response) => {
      const asked = ProofSchema.parse(request.query);
      const as = asked.finish === 'plain' ? 'plainHash' : 'planHash';
      const { plan } = await askedFrame(services, idOf(request), asked.plan, as);
      const proof = await proofs.get(plan, asked.width);
      response.type(proof.type);
      response.sendFile(proof.path, { immutable: true, maxAge: '1y', dotfiles: 'allow' });
    }),
  );

  // The file itself, or all its pieces put together again, as a program that opens it sees it: as soon as it is measured.
  router.get(
    '/:id/shown',
    drawing(async (request, response) => {
      const asked = ProofSchema.pick({ plan: true, width: true }).parse(request.query);
      const { plan } = await askedFrame(services, idOf(request), asked.plan);
      const proof = await proofs.ofFiles(plan, asked.width, () => finishedFiles(services, plan));
      response.type(proof.type);
      response.sendFile(proof.path, { immutable: true, maxAge: '1y', dotfiles: 'allow' });
    }),
  );

  // Pixels for those who finish in the browser: of the plain picture, or of the same enlarged, without loss. Of a strip
  // with a closing panel, the strip.
  router.get(
    '/:id/pixels',
    drawing(async (request, response) => {
      const asked = PixelsSchema.parse(request.query);
      const { plan } = await askedFrame(services, idOf(request), asked.plan, 'plainHash');
      const png = await partOfPicture(plan, asked, await copies.get(plan.original));
      response.setHeader('Cache-Control', forEver);
      response.type('png').send(png);
    }),
  );

  return router;
}
