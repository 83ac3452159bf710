import { KeptInSchema, OwnPlaceSchema, SheetContentSchema, SlugSchema, VersionWordsSchema } from '@inkwell/core/model';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import {
  addPlace,
  makeSheet,
  moveSheet,
  putSheetAway,
  saveSheet,
  sheetVersions,
} from '../../tasks/library/changeSheets.ts';
import { idOf } from '../params.ts';

const CurrentSchema = z.object({ content: SheetContentSchema, words: VersionWordsSchema });
export const MakeSheetSchema = CurrentSchema;
export const SaveSheetSchema = z.object({ version: z.int32().positive(), change: CurrentSchema });
export const AddPlaceSchema = z.object({ place: OwnPlaceSchema, keptIn: KeptInSchema });
export const AwaySchema = z.object({ slug: SlugSchema, isAway: z.boolean() });
export const MoveSchema = z.object({ slug: SlugSchema, before: SlugSchema.nullable() });

/** The sheets of the spec book: made, changed version by version, put away and in order. */
export function sheetsRouter(services: Services): Router {
  const router = Router();

  router.post('/', async (request, response) => {
    const { content, words } = MakeSheetSchema.parse(request.body);
    response.status(201).json(await makeSheet(services, content, words));
  });

  router.post('/places', async (request, response) => {
    const { place, keptIn } = AddPlaceSchema.parse(request.body);
    response.status(201).json(await addPlace(services, place, keptIn));
  });

  router.post('/away', async (request, response) => {
    const { slug, isAway } = AwaySchema.parse(request.body);
    await putSheetAway(services, slug, isAway);
    response.status(204).end();
  });

  router.post('/order', async (request, response) => {
    const { slug, before } = MoveSchema.parse(request.body);
    await moveSheet(services, slug, before);
    response.status(204).end();
  });

  router.get('/:id/versions', async (request, response) => {
    response.json(await sheetVersions(services, idOf(request)));
  });

  router.patch('/:id', async (request, response) => {
    const { version, change } = SaveSheetSchema.parse(request.body);
    response.json(await saveSheet(services, idOf(request), version, change.content, change.words));
  });

  return router;
}
