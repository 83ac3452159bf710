import {
  AskedSurvivalSchema,
  ColoursSchema,
  type ImageFormat,
  ImageFormatSchema,
  TrialSchema,
  WeighedWaySchema,
  WeighingSchema,
} from '@inkwell/core/model';
import { fileCount, type RenderPlan } from '@inkwell/core/planning';
import { z } from 'zod';
import type { TrialAsked } from '../../../imaging/encoding/trials.ts';
import { fromPixels } from '../../../imaging/stages/pixels.ts';
import type { Services } from '../../../services.ts';
import { knownWeights } from '../../../store/measured/weights.ts';
import { askedFrame, forEver } from '../../../tasks/plans/askedFrame.ts';
import { changed, measureWays, waysToEncode } from '../../../tasks/plans/waysToEncode.ts';
import { askSurvival, survivalSoFar } from '../../../tasks/surviving/askSurvival.ts';
import { orNotFound, UserError } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';

const PieceSchema = z.object({ plan: z.string(), piece: z.coerce.number().int().min(0).max(1000).default(0) });
const AskedTrialSchema = PieceSchema.extend({
  format: ImageFormatSchema,
  colours: ColoursSchema.default('full'),
  chroma: WeighingSchema.shape.chroma.default('measured'),
  quality: z.coerce.number().int().min(1).max(100),
});
const MeasuredTrialSchema = AskedTrialSchema.extend({ similarity: z.enum(['yes', 'no']).default('yes') });
const SurvivalAskedSchema = z.object({ plan: z.string() });
const WaysSchema = z.object({ plan: z.string(), about: z.enum(['ways', 'formats']) });

const mediaTypes: Record<ImageFormat, string> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  avif: 'image/avif',
};

/** What a frame could be encoded as: trials of single encodings, and other ways to make its file. */
export function encodings(services: Services): Resource {
  const { recent, trials } = services;
  const routes = new Resource('/frames', 'Encodings of frames');

  const pieceOf = (plan: RenderPlan, piece: number) => {
    const files = fileCount(plan);
    if (piece < files) return piece;
    throw new UserError(
      `This frame has ${files === 1 ? '1 file' : `${files} files`}; there is none with number ${piece + 1}.`,
      404,
    );
  };

  const trialAsked = async (id: string, asked: z.infer<typeof AskedTrialSchema>) => {
    const { framed, planning } = await askedFrame(services, id, asked.plan);
    const { format, colours, chroma } = asked;
    const change = { format, weighing: { ...framed.frame.weighing, colours, chroma } };
    const plan = orNotFound(planning.planOf(changed(framed, change)), 'The place of this frame');
    const nature = (await knownWeights(services.db, [asked.plan])).get(asked.plan)?.nature ?? null;
    const trial: TrialAsked = { quality: asked.quality, piece: pieceOf(plan, asked.piece), nature };
    return { plan, trial };
  };

  routes.get(
    '/:id/uncompressed',
    {
      does: 'The uncompressed picture of a file, which every encoding is compared with.',
      query: PieceSchema,
      draws: true,
      sends: ['image/png'],
    },
    async ({ id, query }, response) => {
      const { plan } = await askedFrame(services, id, query.plan);
      const pixels = (await recent.get(plan)).cut[pieceOf(plan, query.piece)];
      response.setHeader('Cache-Control', forEver);
      response.type('png').send(
        await fromPixels(orNotFound(pixels ?? null, 'This piece'))
          .png({ compressionLevel: 1 })
          .toBuffer(),
      );
    },
  );

  routes.get(
    '/:id/trial',
    {
      does: 'What one encoding weighs, and how similar it is.',
      query: MeasuredTrialSchema,
      draws: true,
      answers: TrialSchema,
    },
    async ({ id, query }, response) => {
      const { plan, trial } = await trialAsked(id, query);
      const measured = await trials.measured(plan, trial, query.similarity === 'yes');
      response.setHeader('Cache-Control', forEver);
      return measured;
    },
  );

  routes.get(
    '/:id/trial/file',
    {
      does: 'The bytes of one encoding.',
      query: AskedTrialSchema,
      draws: true,
      sends: Object.values(mediaTypes),
    },
    async ({ id, query }, response) => {
      const { plan, trial } = await trialAsked(id, query);
      const data = await trials.file(plan, trial);
      response.setHeader('Cache-Control', forEver);
      response.type(mediaTypes[query.format]).send(data);
    },
  );

  routes.get(
    '/:id/ways',
    {
      does: 'Other ways to make the file of a frame, each with what it weighs.',
      query: WaysSchema,
      answers: z.array(WeighedWaySchema),
    },
    ({ id, query }) => waysToEncode(services, id, query.plan, query.about),
  );

  routes.post(
    '/:id/ways',
    { does: 'Measures other ways to make the file of a frame.', takes: WaysSchema, status: 202 },
    ({ id, body }) => measureWays(services, id, body.plan, body.about),
  );

  routes.get(
    '/:id/survival',
    {
      does: 'How the file of a frame is made so that the most of it is seen where its network shows it.',
      query: SurvivalAskedSchema,
      answers: AskedSurvivalSchema,
    },
    ({ id, query }) => survivalSoFar(services, id, query.plan),
  );

  routes.post(
    '/:id/survival',
    { does: 'Finds out how a frame is uploaded best.', takes: SurvivalAskedSchema, status: 202 },
    ({ id, body }) => askSurvival(services, id, body.plan),
  );

  return routes;
}
