import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { setOwnFontDeleted } from '../../store/library/ownFonts.ts';
import { addFont } from '../../tasks/library/addFont.ts';
import { orNotFound } from '../../userError.ts';
import { uploadedFile } from '../upload.ts';

const own = z.string().regex(/^own-[0-9a-f]{24}$/, 'Only fonts that were added can be put aside.');

/** The fonts that words can be set in: those that ship, and those that people add. */
export function fontsRouter({ db, planner, fonts }: Pick<Services, 'db' | 'planner' | 'fonts'>): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json((await planner.open()).book.families);
  });

  router.post('/', async (request, response) => {
    const id = await uploadedFile(request, (stream, name) => addFont({ db, planner }, stream, name), 'font');
    const { book } = await planner.open();
    const added = book.families.find((one) => one.id === id);
    response.status(201).json(orNotFound(added, 'This font'));
  });

  router.delete('/:id', async (request, response) => {
    orNotFound(await setOwnFontDeleted(db, own.parse(request.params.id), true), 'This font');
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    orNotFound(await setOwnFontDeleted(db, own.parse(request.params.id), false), 'This font');
    response.status(204).end();
  });

  // A file never changes under its id while the page that asked for it is open.
  router.get('/files/:id', async (request, response) => {
    await planner.open();
    const path = orNotFound(fonts.pathOf(request.params.id), 'This font');
    response.setHeader('Cache-Control', 'private, max-age=86400');
    response.type('font/ttf').sendFile(path, { dotfiles: 'allow', cacheControl: false });
  });

  return router;
}
