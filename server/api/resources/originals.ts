import { NameSchema, OriginalSettingsSchema } from '@inkwell/core/model';
import { wholePlan } from '@inkwell/core/planning';
import { Router } from 'express';
import { z } from 'zod';
import { bodyOf } from '../../imaging/measuring/bodyOf.ts';
import { colourAt, proposeColours } from '../../imaging/measuring/colours.ts';
import { proposeTrim } from '../../imaging/measuring/trimming.ts';
import type { Services } from '../../services.ts';
import { readBlob } from '../../store/library/blobs.ts';
import {
  duplicateOriginal,
  findOriginal,
  listOriginals,
  renameOriginal,
  setOriginalDeleted,
} from '../../store/library/originals.ts';
import { changeOriginal, pageOf, takeOriginalBack, takePages } from '../../tasks/library/changeOriginal.ts';
import { queueLooking, switchedOff } from '../../tasks/library/lookingAt.ts';
import { drawnTexts } from '../../tasks/library/rewriting.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { drawing } from '../drawing.ts';
import { leavingOf } from '../leaving.ts';
import { idOf } from '../params.ts';
import { uploadedFile } from '../upload.ts';

export const PointSchema = z.object({ x: z.coerce.number().int().min(0), y: z.coerce.number().int().min(0) });
export const PageSchema = z.coerce.number().int().min(0);
export const WidthSchema = z.coerce.number().int().min(16).max(4000);
export const SettingsSchema = z.object({ version: z.int32().positive(), change: OriginalSettingsSchema.partial() });
export const TrimOptionsSchema = z.object({
  tolerance: z.coerce.number().min(0).max(128).default(12),
  shadow: z.enum(['kept', 'left']).default('kept'),
});
const mediaTypes = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  tiff: 'image/tiff',
  avif: 'image/avif',
  svg: 'image/svg+xml',
  gif: 'image/gif',
  heic: 'image/heic',
  bmp: 'image/bmp',
  jxl: 'image/jxl',
};

export function originalsRouter(services: Services): Router {
  const { db, importing, pages, proofs, copies } = services;
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await listOriginals(db));
  });

  // One picture a request.
  router.post('/', async (request, response) => {
    const leaving = leavingOf(response);
    const original = await uploadedFile(request, (stream, name) => importing.take(stream, name, leaving));
    response.status(201).json(original);
  });

  router.patch('/:id', async (request, response) => {
    const { name } = z.object({ name: NameSchema }).parse(request.body);
    response.json(orNotFound(await renameOriginal(db, idOf(request), name), 'This original'));
  });

  router.patch('/:id/settings', async (request, response) => {
    const { version, change } = SettingsSchema.parse(request.body);
    response.json(await changeOriginal(services, idOf(request), version, change));
  });

  // What a drawing says in texts that are still text.
  router.get('/:id/texts', async (request, response) => {
    response.json(await drawnTexts(services, idOf(request)));
  });

  // Looks at it again, where that did not work.
  router.post('/:id/look', async (request, response) => {
    const original = orNotFound(await findOriginal(db, idOf(request)), 'This original');
    if (!services.isLooking) throw new UserError(switchedOff, 409);
    await queueLooking(db, [original], true);
    response.status(202).end();
  });

  // What could be left away of an empty margin, with and without all that lies beside its body; nothing is changed.
  router.get(
    '/:id/trim',
    drawing(async (request, response) => {
      const { tolerance, shadow } = TrimOptionsSchema.parse(request.query);
      const original = orNotFound(await findOriginal(db, idOf(request)), 'This original');
      const trim = await proposeTrim(original, { tolerance, shadow: shadow === 'kept' }, copies);
      response.json({ trim, body: await bodyOf(original, copies) });
    }),
  );

  // Up to five colours that stand for the picture.
  router.get(
    '/:id/colours',
    drawing(async (request, response) => {
      const original = orNotFound(await findOriginal(db, idOf(request)), 'This original');
      response.json({ colours: await proposeColours(original, copies) });
    }),
  );

  // The colour of one pixel of the original; null where it is transparent.
  router.get(
    '/:id/colour',
    drawing(async (request, response) => {
      const at = PointSchema.parse(request.query);
      const original = orNotFound(await findOriginal(db, idOf(request)), 'This original');
      if (at.x >= original.width || at.y >= original.height) {
        throw new UserError(
          `There is no pixel ${at.x}, ${at.y}: the picture is ${original.width} × ${original.height} px.`,
        );
      }
      response.json({ colour: await colourAt(original, at, copies) });
    }),
  );

  router.get('/:id/pages/:page/preview', async (request, response) => {
    const original = orNotFound(await findOriginal(db, idOf(request)), 'This original');
    const page = pageOf(original, PageSchema.parse(request.params.page));
    response.type('image/jpeg');
    response.sendFile(await pages.preview(original, page, leavingOf(response)), {
      immutable: true,
      maxAge: '1y',
      dotfiles: 'allow',
    });
  });

  // Takes other pages of a file that came in: each becomes an original of its own over the same bytes.
  router.post('/:id/pages', async (request, response) => {
    const asked = z.object({ pages: z.array(PageSchema).min(1).max(200) }).parse(request.body);
    const original = orNotFound(await findOriginal(db, idOf(request)), 'This original');
    response.status(201).json(await takePages(services, original, asked.pages, leavingOf(response)));
  });

  router.post('/:id/duplicate', async (request, response) => {
    response.status(201).json(orNotFound(await duplicateOriginal(db, idOf(request)), 'This original'));
  });

  router.delete('/:id', async (request, response) => {
    orNotFound(await setOriginalDeleted(db, idOf(request), true), 'This original');
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    await takeOriginalBack(services, idOf(request));
    response.status(204).end();
  });

  router.get('/:id/file', async (request, response) => {
    const original = orNotFound(await findOriginal(db, idOf(request)), 'This original');
    response.attachment(original.fileName);
    response.type(mediaTypes[original.format]);
    response.setHeader('Content-Length', original.bytes);
    readBlob(db, original.sha256)
      .on('error', (error) => response.destroy(error))
      .pipe(response);
  });

  router.get(
    '/:id/preview',
    drawing(async (request, response) => {
      const original = orNotFound(await findOriginal(db, idOf(request)), 'This original');
      const proof = await proofs.get(wholePlan(original), WidthSchema.parse(request.query.width));
      response.type(proof.type);
      response.sendFile(proof.path, { immutable: true, maxAge: '1y', dotfiles: 'allow' });
    }),
  );

  return router;
}
