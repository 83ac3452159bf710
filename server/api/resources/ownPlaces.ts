import { KeptInSchema, OwnPlaceSchema } from '@inkwell/core/model';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { setOwnPlaceDeleted } from '../../store/library/ownPlaces.ts';
import { changeOwnPlace, makeOwnPlace, putOwnPlaceAside } from '../../tasks/library/changeOwnPlace.ts';
import { orNotFound } from '../../userError.ts';
import { idOf } from '../params.ts';

export const AddSchema = z.object({ place: OwnPlaceSchema, keptIn: KeptInSchema });
export const SaveSchema = z.object({ version: z.int32().positive(), place: OwnPlaceSchema });

/** Places that people make: added, changed, put aside and taken back. */
export function ownPlacesRouter(services: Services): Router {
  const { db } = services;
  const router = Router();

  router.post('/', async (request, response) => {
    const { place, keptIn } = AddSchema.parse(request.body);
    response.status(201).json(await makeOwnPlace(services, place, keptIn));
  });

  router.patch('/:id', async (request, response) => {
    const { version, place } = SaveSchema.parse(request.body);
    response.json(await changeOwnPlace(services, idOf(request), version, place));
  });

  router.delete('/:id', async (request, response) => {
    await putOwnPlaceAside(services, idOf(request));
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    orNotFound(await setOwnPlaceDeleted(db, idOf(request), false), 'This place');
    response.status(204).end();
  });

  return router;
}
