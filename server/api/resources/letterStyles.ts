import { shippedStyles } from '@inkwell/core/lettering';
import { LetterStyleFileSchema, LetterStyleSettingsSchema } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import {
  addLetterStyle,
  findLetterStyle,
  listLetterStyles,
  setLetterStyleDeleted,
} from '../../store/library/letterStyles.ts';
import { orNotFound } from '../../userError.ts';
import { idOf } from '../params.ts';

/** Styles of words that people made: kept under a name, put aside and taken back, written to files and read from them. */
export function letterStylesRouter({ db }: Pick<Services, 'db'>): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await listLetterStyles(db));
  });

  // What a style's file has to be, as JSON Schema.
  router.get('/schema', (_request, response) => {
    response.json(z.toJSONSchema(LetterStyleFileSchema));
  });

  router.post('/', async (request, response) => {
    response.status(201).json(await addLetterStyle(db, LetterStyleSettingsSchema.parse(request.body)));
  });

  router.post('/import', async (request, response) => {
    const { inkwellLetterStyle: _, ...settings } = LetterStyleFileSchema.parse(request.body);
    response.status(201).json(await addLetterStyle(db, settings));
  });

  router.get('/:id/file', async (request, response) => {
    const shipped = shippedStyles.find(({ id }) => id === request.params.id);
    const { name, style } = shipped ?? orNotFound(await findLetterStyle(db, idOf(request)), 'This style');
    response.attachment(`${fileNameWord(name) || 'style'}.letter-style.json`);
    response.type('json').send(JSON.stringify({ inkwellLetterStyle: 1, name, style }, null, 2));
  });

  router.delete('/:id', async (request, response) => {
    orNotFound(await setLetterStyleDeleted(db, idOf(request), true), 'This style');
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    orNotFound(await setLetterStyleDeleted(db, idOf(request), false), 'This style');
    response.status(204).end();
  });

  return router;
}
