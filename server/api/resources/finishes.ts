import { finishById } from '@inkwell/core/finishing';
import { FinishFileSchema, FinishSettingsSchema } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { addFinish, findFinish, finishUses, listFinishes, setFinishDeleted } from '../../store/library/finishes.ts';
import { changeFinish, putFinishAside } from '../../tasks/library/changeFinish.ts';
import { orNotFound } from '../../userError.ts';
import { idOf } from '../params.ts';

export const SaveSchema = z.object({ version: z.int32().positive(), change: FinishSettingsSchema.partial() });

/** Finishes that people make: added, changed, put aside and taken back, written to files and read from them. */
export function finishesRouter(services: Services): Router {
  const { db } = services;
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
    const finish = shipped.id === id ? shipped : orNotFound(await findFinish(db, idOf(request)), 'This finish');
    const { name, description, treatment } = finish;
    response.attachment(`${fileNameWord(name) || 'finish'}.finish.json`);
    response.type('json').send(JSON.stringify({ inkwellFinish: 1, name, description, treatment }, null, 2));
  });

  router.patch('/:id', async (request, response) => {
    const { version, change } = SaveSchema.parse(request.body);
    response.json(await changeFinish(services, idOf(request), version, change));
  });

  router.delete('/:id', async (request, response) => {
    await putFinishAside(services, idOf(request));
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    orNotFound(await setFinishDeleted(db, idOf(request), false), 'This finish');
    response.status(204).end();
  });

  return router;
}
