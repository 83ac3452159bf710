import { Router } from 'express';
import type { Services } from '../services.ts';
import { orNotFound } from '../userError.ts';

/** The fonts that words can be set in. */
export function fontsRouter({ fonts }: Pick<Services, 'fonts'>): Router {
  const router = Router();

  router.get('/', (_request, response) => {
    response.json(fonts.families);
  });

  // A file never changes under its id while the page that asked for it is open.
  router.get('/files/:id', (request, response) => {
    const path = orNotFound(fonts.pathOf(request.params.id), 'This font');
    response.setHeader('Cache-Control', 'private, max-age=86400');
    response.type('font/ttf').sendFile(path, { dotfiles: 'allow', cacheControl: false });
  });

  return router;
}
