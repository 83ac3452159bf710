import { finishById } from '@inkwell/core/finishing';
import { FinishFileSchema, FinishSettingsSchema } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { Router } from 'express';
import { z } from 'zod';
import { Refusal } from '../refusal.ts';
import type { Services } from '../services.ts';
import {
  addFinish,
  findFinish,
  finishNamed,
  finishUses,
  listFinishes,
  saveFinish,
  setFinishDeleted,
} from '../store/finishes.ts';
import { framesAffected } from '../store/frames.ts';
import { queueMeasuring } from '../tasks/measuredFrames.ts';
import { found, idOf } from './params.ts';

export const SaveSchema = z.object({ version: z.int().positive(), change: FinishSettingsSchema.partial() });

/** Finishes that people make: added, changed, put aside and taken back, written to files and read from them. */
export function finishesRouter({ db, planner }: Services): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    const uses = Object.fromEntries(await finishUses(db));
    response.json({ finishes: await listFinishes(db), uses });
  });

  // What a finish's file has to be, as JSON Schema.
  router.get('/schema', (_request, response) => {
    response.json(z.toJSONSchema(FinishFileSchema));
  });

  router.post('/', async (request, response) => {
    response.status(201).json(await addFinish(db, FinishSettingsSchema.parse(request.body)));
  });

  router.post('/import', async (request, response) => {
    const { inkwellFinish: _, ...settings } = FinishFileSchema.parse(request.body);
    response.status(201).json(await addFinish(db, settings));
  });

  router.get('/:id/file', async (request, response) => {
    const { id } = request.params;
    const shipped = finishById(id, []);
    const finish = shipped.id === id ? shipped : found(await findFinish(db, idOf(request)), 'This finish');
    const { name, description, treatment } = finish;
    response.attachment(`${fileNameWord(name) || 'finish'}.finish.json`);
    response.type('json').send(JSON.stringify({ inkwellFinish: 1, name, description, treatment }, null, 2));
  });

  router.patch('/:id', async (request, response) => {
    const { version, change } = SaveSchema.parse(request.body);
    const finish = found(await findFinish(db, idOf(request)), 'This finish');
    const saved = await db.transaction(async (tx) => {
      const row = await saveFinish(tx, finish.id, version, change);
      const affected = row ? await framesAffected(tx, { finishId: row.id }) : [];
      await queueMeasuring(tx, await planner.open(tx), affected);
      return row;
    });
    if (!saved) {
      const current = found(await findFinish(db, finish.id), 'This finish');
      throw new Refusal('This finish was changed elsewhere meanwhile.', 409, { current });
    }
    response.json(saved);
  });

  router.delete('/:id', async (request, response) => {
    const finish = found(await findFinish(db, idOf(request)), 'This finish');
    if ((await finishNamed(db, finish.id)) > 0) {
      throw new Refusal(`${finish.name} is in use. Choose another finish wherever it is used, then remove it.`, 409);
    }
    await setFinishDeleted(db, finish.id, true);
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    found(await setFinishDeleted(db, idOf(request), false), 'This finish');
    response.status(204).end();
  });

  return router;
}
