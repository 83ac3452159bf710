import { otherFormats, type Way, waysOut } from '@inkwell/core/checking';
import {
  ColoursSchema,
  type FrameChange,
  type ImageFormat,
  ImageFormatSchema,
  WeighingSchema,
  type Weight,
} from '@inkwell/core/model';
import { fileCount, planHash, type RenderPlan } from '@inkwell/core/planning';
import { Router } from 'express';
import { z } from 'zod';
import type { TrialAsked } from '../imaging/encoding/trials.ts';
import { fromPixels } from '../imaging/stages/pixels.ts';
import { Refusal } from '../refusal.ts';
import type { Services } from '../services.ts';
import type { FramedPicture } from '../store/frames.ts';
import { knownWeights } from '../store/weights.ts';
import { addWork, failures, priorities } from '../store/work.ts';
import { askedFrame, forEver } from '../tasks/askedFrame.ts';
import { planKey } from '../tasks/measuredFrames.ts';
import { drawing } from './drawing.ts';
import { found, idOf } from './params.ts';

export const PieceSchema = z.object({ plan: z.string(), piece: z.coerce.number().int().min(0).max(1000).default(0) });
export const TrialSchema = PieceSchema.extend({
  format: ImageFormatSchema,
  colours: ColoursSchema.default('full'),
  chroma: WeighingSchema.shape.chroma.default('measured'),
  quality: z.coerce.number().int().min(1).max(100),
});
export const MeasuredTrialSchema = TrialSchema.extend({ similarity: z.enum(['yes', 'no']).default('yes') });
export const WaysSchema = z.object({ plan: z.string(), about: z.enum(['ways', 'formats']) });

const mediaTypes: Record<ImageFormat, string> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  avif: 'image/avif',
};

/** What a frame could be encoded as: trials of single encodings, and other ways to make its file. */
export function encodingsRouter(services: Services): Router {
  const { db, recent, trials } = services;
  const router = Router({ mergeParams: true });

  const pieceOf = (plan: RenderPlan, piece: number) => {
    const files = fileCount(plan);
    if (piece < files) return piece;
    throw new Refusal(
      `This frame has ${files === 1 ? '1 file' : `${files} files`}; there is none with number ${piece + 1}.`,
      404,
    );
  };

  const trialAsked = async (id: string, asked: z.infer<typeof TrialSchema>) => {
    const { framed, planning } = await askedFrame(services, id, asked.plan);
    const { format, colours, chroma } = asked;
    const change = { format, weighing: { ...framed.frame.weighing, colours, chroma } };
    const plan = found(planning.planOf(changed(framed, change)), 'The place of this frame');
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
        await fromPixels(found(pixels ?? null, 'This piece'))
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

  const waysAsked = async (id: string, { plan: hash, about }: z.infer<typeof WaysSchema>) => {
    const { framed, planning } = await askedFrame(services, id, hash);
    const { frame, original } = framed;
    const { place } = found(planning.places.get(frame.placeId), 'The place of this frame');
    const toWay = { original, place, settings: frame, treatment: planning.finishOf(framed).treatment };
    const ways = about === 'ways' ? waysOut(toWay) : [ownFormat(framed), ...otherFormats(toWay)].map(unseen);
    const planned = ways.flatMap((way) => {
      const plan = planning.planOf(changed(framed, way.change));
      return plan ? [{ way, plan, hash: planHash(plan) }] : [];
    });
    const hashes = planned.map((one) => one.hash);
    return { planned, hashes, weights: await knownWeights(db, hashes) };
  };

  // Other ways to make the file, each with what it weighs; null while that is not measured. Of formats each is as light as it can
  // be while nothing is seen, so that they can be compared.
  router.get('/ways', async (request, response) => {
    const { planned, hashes, weights } = await waysAsked(idOf(request), WaysSchema.parse(request.query));
    const failed = await failures(db, hashes.map(planKey));
    response.json(
      planned.map(({ way, hash }): Way & { weight: Weight | null; failure: string | null } => ({
        ...way,
        weight: weights.get(hash) ?? null,
        failure: failed.get(planKey(hash)) ?? null,
      })),
    );
  });

  // Asks for those that are not measured yet: somebody is looking at them. What failed is tried again.
  router.post('/ways', async (request, response) => {
    const { planned, weights } = await waysAsked(idOf(request), WaysSchema.parse(request.body));
    const missing = planned.filter(({ hash }) => !weights.has(hash));
    await addWork(
      db,
      missing.map(({ plan, hash }) => ({
        key: planKey(hash),
        task: { kind: 'plan', plan, isWay: true },
        priority: priorities.delivering,
      })),
      true,
    );
    response.status(202).json({});
  });

  return router;
}

const changed = (framed: FramedPicture, change: FrameChange): FramedPicture => ({
  ...framed,
  frame: { ...framed.frame, ...change },
});

const ownFormat = ({ frame: { format, weighing } }: FramedPicture): Way => ({
  key: 'own',
  label: 'As it is set',
  cost: '',
  change: { format, weighing },
});

/** The same way with nothing seen to be lost, whatever the frame's own aim. */
const unseen = (way: Way): Way => {
  const { weighing } = way.change;
  if (!weighing) return way;
  const aim = { kind: 'no heavier than it needs' as const, level: 'flick' as const };
  return { ...way, change: { ...way.change, weighing: { ...weighing, aim, mostQuality: null } } };
};
