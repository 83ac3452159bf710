import { openingOf } from '@inkwell/core/framing';
import { boundsOf, clampWindow } from '@inkwell/core/geometry';
import { type Frame, type FrameChange, FrameChangeSchema, type Original, type Place } from '@inkwell/core/model';
import { planHash } from '@inkwell/core/planning';
import { Router } from 'express';
import { z } from 'zod';
import { Refusal } from '../refusal.ts';
import type { Services } from '../services.ts';
import { findFrame, saveFrame } from '../store/frames.ts';
import { found, idOf } from './params.ts';

const SaveSchema = z.object({ version: z.int().positive(), change: FrameChangeSchema });
const ProofSchema = z.object({ plan: z.string(), width: z.coerce.number().int().min(16).max(4000) });

/** The change as it is kept: a window that is set lies where it may, and was moved by hand unless the change says otherwise. */
function settledChange(frame: Frame, change: FrameChange, original: Original, place: Place): FrameChange {
  if (!change.window) return change;
  const settings = { ...frame, ...change };
  const bounds = boundsOf(original, settings.backing);
  const window = clampWindow(change.window, bounds, openingOf(place, original, settings).dimensions);
  return { composed: false, ...change, window };
}

export function framesRouter({ db, book, proofs }: Services): Router {
  const router = Router();

  router.patch('/:id', async (request, response) => {
    const { version, change } = SaveSchema.parse(request.body);
    const { frame, original } = found(await findFrame(db, idOf(request)), 'This frame');
    const { places } = await book.open();
    const { place } = found(places.get(frame.placeId), 'The place of this frame');
    const saved = await saveFrame(db, frame.id, version, settledChange(frame, change, original, place));
    if (!saved) {
      const now = found(await findFrame(db, frame.id), 'This frame').frame;
      throw new Refusal('This frame was changed elsewhere meanwhile.', 409, { current: now });
    }
    response.json(saved);
  });

  // The address names the plan, so its picture never changes and may be kept by the browser for ever.
  router.get('/:id/proof', async (request, response) => {
    const asked = ProofSchema.parse(request.query);
    const { frame, original } = found(await findFrame(db, idOf(request)), 'This frame');
    const plan = found((await book.open()).planOf(frame, original), 'The place of this frame');
    if (planHash(plan) !== asked.plan) throw new Refusal('The frame has changed since this proof was asked for.', 409);
    const proof = await proofs.get(plan, asked.width);
    response.type(proof.type);
    response.sendFile(proof.path, { immutable: true, maxAge: '1y', dotfiles: 'allow' });
  });

  return router;
}
