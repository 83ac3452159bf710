import { PlaceSetFileSchema, PlaceSetSettingsSchema } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { findPlaceSet, listPlaceSets, setPlaceSetDeleted } from '../../store/library/placeSets.ts';
import { applyPlaceSet, changePlaceSet, makePlaceSet } from '../../tasks/book/placeSets.ts';
import { orNotFound } from '../../userError.ts';
import { idOf } from '../params.ts';

export const SaveSetSchema = z.object({ version: z.int32().positive(), change: PlaceSetSettingsSchema });
export const ApplySetSchema = z.object({ projectId: z.uuid(), version: z.int32().positive() });

const what = 'This set';

/** Sets of places: made, changed, used for a project, written to files and read from them. */
export function placeSetsRouter(services: Services): Router {
  const { db } = services;
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await listPlaceSets(db));
  });

  router.post('/', async (request, response) => {
    response.status(201).json(await makePlaceSet(services, PlaceSetSettingsSchema.parse(request.body)));
  });

  router.post('/import', async (request, response) => {
    const { placeSet: _, ...settings } = PlaceSetFileSchema.parse(request.body);
    response.status(201).json(await makePlaceSet(services, settings));
  });

  router.get('/:id/file', async (request, response) => {
    const { id: _, version: __, ...settings } = orNotFound(await findPlaceSet(db, idOf(request)), what);
    response.attachment(`${fileNameWord(settings.name) || 'set'}.places.json`);
    response.type('json').send(JSON.stringify({ placeSet: 1, ...settings }, null, 2));
  });

  router.patch('/:id', async (request, response) => {
    const { version, change } = SaveSetSchema.parse(request.body);
    response.json(await changePlaceSet(services, idOf(request), version, change));
  });

  router.post('/:id/apply', async (request, response) => {
    const { projectId, version } = ApplySetSchema.parse(request.body);
    response.json(await applyPlaceSet(services, idOf(request), projectId, version));
  });

  router.delete('/:id', async (request, response) => {
    orNotFound(await setPlaceSetDeleted(db, idOf(request), true), what);
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    orNotFound(await setPlaceSetDeleted(db, idOf(request), false), what);
    response.status(204).end();
  });

  return router;
}
