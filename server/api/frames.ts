import { openingOf } from '@inkwell/core/framing';
import { boundsOf, clampWindow } from '@inkwell/core/geometry';
import { type Border, type FrameChange, FrameChangeSchema, type Place } from '@inkwell/core/model';
import { plainPlan } from '@inkwell/core/planning';
import { notTaken } from '@inkwell/core/splitting';
import { Router } from 'express';
import { z } from 'zod';
import { partOfPicture } from '../imaging/stages/partOfPicture.ts';
import { Refusal } from '../refusal.ts';
import type { Services } from '../services.ts';
import { type FramedPicture, findFrame, saveFrame } from '../store/frames.ts';
import { priorities } from '../store/work.ts';
import { askedFrame, forEver } from '../tasks/askedFrame.ts';
import { finishedFiles } from '../tasks/finishedFiles.ts';
import { queueMeasuring } from '../tasks/measuredFrames.ts';
import { drawing } from './drawing.ts';
import { found, idOf } from './params.ts';

export const SaveSchema = z.object({ version: z.int().positive(), change: FrameChangeSchema });
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

/** Whether a change is about what a place has a say in: other changes are taken whatever its numbers have become. */
const affectsGrid = ({ grid, closing, height }: FrameChange) =>
  grid !== undefined || closing !== undefined || height !== undefined;

/** The change as it is kept: a window that is set lies where it may, and was moved by hand unless the change says otherwise. */
function settledChange(
  { frame, original }: FramedPicture,
  change: FrameChange,
  place: Place,
  border: Border | null,
): FrameChange {
  if (!change.window) return change;
  const settings = { ...frame, ...change, border };
  const bounds = boundsOf(original, settings.backing);
  const window = clampWindow(change.window, bounds, openingOf(place, original, settings).dimensions);
  return { composed: false, ...change, window };
}

export function framesRouter({ db, planner, proofs, copies }: Services): Router {
  const router = Router();

  router.patch('/:id', async (request, response) => {
    const { version, change } = SaveSchema.parse(request.body);
    const framed = found(await findFrame(db, idOf(request)), 'This frame');
    const { frame } = framed;
    const { places, finishOf } = await planner.open();
    const { place } = found(places.get(frame.placeId), 'The place of this frame');
    const problem = affectsGrid(change) ? notTaken(place, framed.original, { ...frame, ...change }) : null;
    if (problem) throw new Refusal(problem);
    const { border } = finishOf({ ...framed, frame: { ...frame, ...change } }).treatment;
    const saved = await db.transaction(async (tx) => {
      const row = await saveFrame(tx, frame.id, version, settledChange(framed, change, place, border));
      if (row) await queueMeasuring(tx, await planner.open(tx), [{ ...framed, frame: row }]);
      return row;
    });
    if (!saved) {
      const now = found(await findFrame(db, frame.id), 'This frame').frame;
      throw new Refusal('This frame was changed elsewhere meanwhile.', 409, { current: now });
    }
    response.json(saved);
  });

  // Somebody is looking at this frame: what is not measured of it yet is measured before everything else. What could not be
  // measured is tried again where that is asked for.
  router.post('/:id/measure', async (request, response) => {
    const { plan: hash, again } = MeasureSchema.parse(request.body);
    const { framed, planning } = await askedFrame({ db, planner }, idOf(request), hash);
    await queueMeasuring(db, planning, [framed], priorities.looked, again);
    response.status(202).json({});
  });

  // The address names the plan, so its picture never changes and may be kept by the browser for ever.
  router.get(
    '/:id/proof',
    drawing(async (request, response) => {
      const asked = ProofSchema.parse(request.query);
      const as = asked.finish === 'plain' ? plainPlan : undefined;
      const { plan } = await askedFrame({ db, planner }, idOf(request), asked.plan, as);
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
      const { plan } = await askedFrame({ db, planner }, idOf(request), asked.plan);
      const proof = await proofs.ofFiles(plan, asked.width, () => finishedFiles({ db, copies }, plan));
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
      const { plan } = await askedFrame({ db, planner }, idOf(request), asked.plan, plainPlan);
      const png = await partOfPicture(plan, asked, await copies.get(plan.original));
      response.setHeader('Cache-Control', forEver);
      response.type('png').send(png);
    }),
  );

  return router;
}
