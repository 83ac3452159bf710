import { AppliedSetSchema, PlaceSetFileSchema, PlaceSetSchema, PlaceSetSettingsSchema } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { findPlaceSet, listPlaceSets, setPlaceSetDeleted } from '../../../store/library/placeSets.ts';
import { applyPlaceSet, changePlaceSet, makePlaceSet } from '../../../tasks/book/placeSets.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';

const SaveSetSchema = z.object({ version: z.int32().positive(), change: PlaceSetSettingsSchema });
const ApplySetSchema = z.object({ projectId: z.uuid(), version: z.int32().positive() });

const what = 'This set';

/** Sets of places: made, changed, used for a project, written to files and read from them. */
export function placeSets(services: Services): Resource {
  const { db } = services;
  const routes = new Resource('/place-sets', 'Sets of places');

  routes.get('', { does: 'Lists all sets of places.', answers: z.array(PlaceSetSchema) }, () => listPlaceSets(db));

  routes.post(
    '',
    { does: 'Makes a set of places.', takes: PlaceSetSettingsSchema, answers: PlaceSetSchema, status: 201 },
    ({ body }) => makePlaceSet(services, body),
  );

  routes.post(
    '/import',
    { does: 'Takes a set of places in from a file.', takes: PlaceSetFileSchema, answers: PlaceSetSchema, status: 201 },
    ({ body: { placeSet: _, ...settings } }) => makePlaceSet(services, settings),
  );

  routes.get(
    '/:id/file',
    { does: 'A set of places as a file.', sends: ['application/json'] },
    async ({ id }, response) => {
      const { id: _, version: __, ...settings } = orNotFound(await findPlaceSet(db, id), what);
      response.attachment(`${fileNameWord(settings.name) || 'set'}.places.json`);
      response.type('json').send(JSON.stringify({ placeSet: 1, ...settings }, null, 2));
    },
  );

  routes.patch(
    '/:id',
    { does: 'Changes a set of places.', takes: SaveSetSchema, answers: PlaceSetSchema },
    ({ id, body }) => changePlaceSet(services, id, body.version, body.change),
  );

  routes.post(
    '/:id/apply',
    {
      does: 'Gives the pictures of a project the places of a set, with what goes with them.',
      takes: ApplySetSchema,
      answers: AppliedSetSchema,
    },
    ({ id, body }) => applyPlaceSet(services, id, body.projectId, body.version),
  );

  routes.delete('/:id', { does: 'Puts a set aside.' }, async ({ id }) => {
    orNotFound(await setPlaceSetDeleted(db, id, true), what);
  });

  routes.post('/:id/restore', { does: 'Takes a set back that was put aside.' }, async ({ id }) => {
    orNotFound(await setPlaceSetDeleted(db, id, false), what);
  });

  return routes;
}
