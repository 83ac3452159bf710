import { KeptInSchema, OwnPlaceSchema } from '@inkwell/core/model';
import { Router } from 'express';
import { z } from 'zod';
import { Refusal } from '../refusal.ts';
import type { Services } from '../services.ts';
import { framesAffected } from '../store/frames.ts';
import {
  addOwnPlace,
  findOwnPlace,
  framesAtPlace,
  placeIdOf,
  saveOwnPlace,
  setOwnPlaceDeleted,
} from '../store/ownPlaces.ts';
import { projectName } from '../store/projects.ts';
import { queueMeasuring } from '../tasks/measuredFrames.ts';
import { found, idOf } from './params.ts';

export const AddSchema = z.object({ place: OwnPlaceSchema, keptIn: KeptInSchema });
export const SaveSchema = z.object({ version: z.int().positive(), place: OwnPlaceSchema });

/** Places that people make: added, changed, put aside and taken back. */
export function ownPlacesRouter({ db, planner }: Services): Router {
  const router = Router();

  router.post('/', async (request, response) => {
    const { place, keptIn } = AddSchema.parse(request.body);
    const sheetName =
      keptIn.kind === 'sheet'
        ? keptIn.name
        : `Only in ${found(await projectName(db, keptIn.projectId), 'This project')}`;
    const row = await addOwnPlace(db, place, keptIn, sheetName);
    response.status(201).json({ id: row.id, placeId: placeIdOf(row) });
  });

  router.patch('/:id', async (request, response) => {
    const { version, place } = SaveSchema.parse(request.body);
    const row = found(await findOwnPlace(db, idOf(request)), 'This place');
    const saved = await db.transaction(async (tx) => {
      const changed = await saveOwnPlace(tx, row.id, version, place);
      const affected = changed ? await framesAffected(tx, { placeId: placeIdOf(changed) }) : [];
      await queueMeasuring(tx, await planner.open(tx), affected);
      return changed;
    });
    if (!saved) {
      throw new Refusal('This place was changed elsewhere meanwhile. Reload the page to see it as it is now.', 409);
    }
    response.json({ id: row.id, placeId: placeIdOf(row) });
  });

  router.delete('/:id', async (request, response) => {
    const row = found(await findOwnPlace(db, idOf(request)), 'This place');
    const used = await framesAtPlace(db, placeIdOf(row));
    if (used > 0) {
      const [frames, out] =
        used === 1 ? ['1 frame is', 'it out of its project'] : [`${used} frames are`, 'them out of their projects'];
      throw new Refusal(`${frames} made for ${row.place.name}. Take ${out} first.`, 409);
    }
    await setOwnPlaceDeleted(db, row.id, true);
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    found(await setOwnPlaceDeleted(db, idOf(request), false), 'This place');
    response.status(204).end();
  });

  return router;
}
