import { ColoursSchema, type ImageFormat, ImageFormatSchema, WeighingSchema } from '@inkwell/core/model';
import { fileCount, type RenderPlan } from '@inkwell/core/planning';
import { Router } from 'express';
import { z } from 'zod';
import type { TrialAsked } from '../../imaging/encoding/trials.ts';
import { fromPixels } from '../../imaging/stages/pixels.ts';
import type { Services } from '../../services.ts';
import { askedFrame, forEver } from '../../tasks/plans/askedFrame.ts';
import { changed, measureWays, waysToEncode } from '../../tasks/plans/waysToEncode.ts';
import { askSurvival, survivalSoFar } from '../../tasks/surviving/askSurvival.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { drawing } from '../drawing.ts';
import { idOf } from '../params.ts';

export const PieceSchema = z.object({ plan: z.string(), piece: z.coerce.number().int().min(0).max(1000).default(0) });
export const TrialSchema = PieceSchema.extend({
  format: ImageFormatSchema,
  colours: ColoursSchema.default('full'),
  chroma: WeighingSchema.shape.chroma.default('measured'),
  quality: z.coerce.number().int().min(1).max(100),
});
export const MeasuredTrialSchema = TrialSchema.extend({ similarity: z.enum(['yes', 'no']).default('yes') });
export const SurvivalAskedSchema = z.object({ plan: z.string() });
export const WaysSchema = z.object({ plan: z.string(), about: z.enum(['ways', 'formats']) });

const mediaTypes: Record<ImageFormat, string> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  avif: 'image/avif',
};

/** What a frame could be encoded as: trials of single encodings, and other ways to make its file. */
export function encodingsRouter(services: Services): Router {
  const { recent, trials } = services;
  const router = Router({ mergeParams: true });

  const pieceOf = (plan: RenderPlan, piece: number) => {
    const files = fileCount(plan);
    if (piece < files) return piece;
    throw new UserError(
      `This frame has ${files === 1 ? '1 file' : `${files} files`}; there is none with number ${piece + 1}.`,
      404,
    );
  };

  const trialAsked = async (id: string, asked: z.infer<typeof TrialSchema>) => {
    const { framed, planning } = await askedFrame(services, id, asked.plan);
    const { format, colours, chroma } = asked;
    const change = { format, weighing: { ...framed.frame.weighing, colours, chroma } };
    const plan = orNotFound(planning.planOf(changed(framed, change)), 'The place of this frame');
    const trial: TrialAsked = { quality: asked.quality, piece: pieceOf(plan, asked.piece) };
    return { plan, trial };
  };

  // The uncompressed picture of a file, which every encoding is compared with.
  router.get(
    '/uncompressed',
    drawing(async (request, response) => {
      const asked = PieceSchema.parse(request.query);
      const { plan } = await askedFrame(services, idOf(request), asked.plan);
      const pixels = (await recent.get(plan)).cut[pieceOf(plan, asked.piece)];
      response.setHeader('Cache-Control', forEver);
      response.type('png').send(
        await fromPixels(orNotFound(pixels ?? null, 'This piece'))
          .png({ compressionLevel: 1 })
          .toBuffer(),
      );
    }),
  );

  // What one encoding weighs and how similar it is; the bytes themselves are at `/trial/file`.
  router.get(
    '/trial',
    drawing(async (request, response) => {
      const asked = MeasuredTrialSchema.parse(request.query);
      const { plan, trial } = await trialAsked(idOf(request), asked);
      const measured = await trials.measured(plan, trial, asked.similarity === 'yes');
      response.setHeader('Cache-Control', forEver);
      response.json(measured);
    }),
  );

  router.get(
    '/trial/file',
    drawing(async (request, response) => {
      const asked = TrialSchema.parse(request.query);
      const { plan, trial } = await trialAsked(idOf(request), asked);
      const data = await trials.file(plan, trial);
      response.setHeader('Cache-Control', forEver);
      response.type(mediaTypes[asked.format]).send(data);
    }),
  );

  router.get('/ways', async (request, response) => {
    const { plan, about } = WaysSchema.parse(request.query);
    response.json(await waysToEncode(services, idOf(request), plan, about));
  });

  router.post('/ways', async (request, response) => {
    const { plan, about } = WaysSchema.parse(request.body);
    await measureWays(services, idOf(request), plan, about);
    response.status(202).json({});
  });

  // How its file is made so that the most of it is seen where its network shows it.
  router.get('/survival', async (request, response) => {
    const { plan } = SurvivalAskedSchema.parse(request.query);
    response.json(await survivalSoFar(services, idOf(request), plan));
  });

  router.post('/survival', async (request, response) => {
    const { plan } = SurvivalAskedSchema.parse(request.body);
    await askSurvival(services, idOf(request), plan);
    response.status(202).json({});
  });

  return router;
}
