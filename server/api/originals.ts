import { NameSchema, type Original, OriginalSettingsSchema } from '@inkwell/core/model';
import busboy from 'busboy';
import { type Response, Router } from 'express';
import { z } from 'zod';
import { colourAt, proposeColours } from '../imaging/measuring/colours.ts';
import { proposeTrim } from '../imaging/measuring/trimming.ts';
import { previewPlan } from '../imaging/stages/preview.ts';
import { Refusal } from '../refusal.ts';
import type { Services } from '../services.ts';
import { readBlob } from '../store/blobs.ts';
import { framesAffected } from '../store/frames.ts';
import {
  addPage,
  duplicateOriginal,
  findOriginal,
  listOriginals,
  renameOriginal,
  saveOriginalSettings,
  setOriginalDeleted,
} from '../store/originals.ts';
import { queueMeasuring } from '../tasks/measuredFrames.ts';
import { drawing } from './drawing.ts';
import { found, idOf } from './params.ts';

export const PointSchema = z.object({ x: z.coerce.number().int().min(0), y: z.coerce.number().int().min(0) });
export const PageSchema = z.coerce.number().int().min(0);
export const WidthSchema = z.coerce.number().int().min(16).max(4000);
export const SettingsSchema = z.object({ version: z.int().positive(), change: OriginalSettingsSchema.partial() });
export const TrimOptionsSchema = z.object({
  tolerance: z.coerce.number().min(0).max(128).default(12),
  shadow: z.enum(['kept', 'left']).default('kept'),
});
type OriginalChange = z.infer<typeof SettingsSchema>['change'];

/** Why marks or a trim cannot lie where they are asked for, in words, or null. */
function regionProblem({ width, height }: Original, { marks = [], trim = null }: OriginalChange): string | null {
  const isOutside = (one: { left: number; top: number; width: number; height: number }) =>
    one.left < 0 || one.top < 0 || one.left + one.width > width + 0.01 || one.top + one.height > height + 0.01;
  const stray = marks.find(isOutside);
  if (stray) return `${stray.name} reaches past the picture, which is ${width} × ${height} px. Draw it inside.`;
  if (trim && isOutside(trim)) return `The trim reaches past the picture, which is ${width} × ${height} px.`;
  return null;
}

/** Aborts where nobody waits for the answer any more: the work for it ends as well. */
function leavingOf(response: Response): AbortSignal {
  const leaving = new AbortController();
  response.on('close', () => {
    if (!response.writableFinished) leaving.abort(new Refusal('The request was cancelled.', 400));
  });
  return leaving.signal;
}

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

export function originalsRouter({ db, planner, importing, pages, proofs, copies }: Services): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await listOriginals(db));
  });

  // One picture a request, as multipart/form-data with a part named `file`; streamed, never held in memory.
  router.post('/', async (request, response) => {
    const leaving = leavingOf(response);
    const original = await new Promise<Awaited<ReturnType<typeof importing.take>>>((resolve, reject) => {
      let parser: busboy.Busboy;
      try {
        parser = busboy({ headers: request.headers, limits: { files: 1 }, defParamCharset: 'utf8' });
      } catch (error) {
        reject(
          Object.assign(new Refusal('A picture has to be sent as a form with a part named file.', 400), {
            cause: error,
          }),
        );
        return;
      }
      let taking = false;
      parser.on('file', (field, stream, info) => {
        taking = true;
        if (field !== 'file') {
          stream.resume();
          reject(new Refusal('A picture has to be sent as a form with a part named file.', 400));
          return;
        }
        importing.take(stream, info.filename || 'picture', leaving).then(resolve, (error: unknown) => {
          request.unpipe(parser);
          request.resume();
          reject(error);
        });
      });
      parser.on('close', () => {
        if (!taking) reject(new Refusal('No picture came with this request.', 400));
      });
      parser.on('error', (error) => {
        reject(Object.assign(new Refusal('The upload broke off. Try again.', 400), { cause: error }));
      });
      request.pipe(parser);
    });
    response.status(201).json(original);
  });

  router.patch('/:id', async (request, response) => {
    const { name } = z.object({ name: NameSchema }).parse(request.body);
    response.json(found(await renameOriginal(db, idOf(request), name), 'This original'));
  });

  router.patch('/:id/settings', async (request, response) => {
    const { version, change } = SettingsSchema.parse(request.body);
    const original = found(await findOriginal(db, idOf(request)), 'This original');
    const problem = regionProblem(original, change);
    if (problem) throw new Refusal(problem);
    const saved = await db.transaction(async (tx) => {
      const row = await saveOriginalSettings(tx, original.id, version, change);
      const affected = row ? await framesAffected(tx, { originalId: row.id }) : [];
      await queueMeasuring(tx, await planner.open(tx), affected);
      return row;
    });
    if (!saved) {
      const now = found(await findOriginal(db, original.id), 'This original');
      throw new Refusal('Marks or words of this picture were changed elsewhere meanwhile.', 409, { current: now });
    }
    response.json(saved);
  });

  // What could be left away of an empty margin; nothing is changed.
  router.get(
    '/:id/trim',
    drawing(async (request, response) => {
      const { tolerance, shadow } = TrimOptionsSchema.parse(request.query);
      const original = found(await findOriginal(db, idOf(request)), 'This original');
      response.json({ trim: await proposeTrim(original, { tolerance, shadow: shadow === 'kept' }, copies) });
    }),
  );

  // Up to five colours that stand for the picture.
  router.get(
    '/:id/colours',
    drawing(async (request, response) => {
      const original = found(await findOriginal(db, idOf(request)), 'This original');
      response.json({ colours: await proposeColours(original, copies) });
    }),
  );

  // The colour of one pixel of the original; null where it is transparent.
  router.get(
    '/:id/colour',
    drawing(async (request, response) => {
      const at = PointSchema.parse(request.query);
      const original = found(await findOriginal(db, idOf(request)), 'This original');
      if (at.x >= original.width || at.y >= original.height) {
        throw new Refusal(
          `There is no pixel ${at.x}, ${at.y}: the picture is ${original.width} × ${original.height} px.`,
        );
      }
      response.json({ colour: await colourAt(original, at, copies) });
    }),
  );

  const pageOf = ({ pages: count }: Original, page: number) => {
    if (page < count) return page;
    throw new Refusal(`This file has ${count} pages or frames; there is none with number ${page + 1}.`, 404);
  };

  router.get('/:id/pages/:page/preview', async (request, response) => {
    const original = found(await findOriginal(db, idOf(request)), 'This original');
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
    const original = found(await findOriginal(db, idOf(request)), 'This original');
    const added: Original[] = [];
    for (const page of asked.pages) {
      const { width, height, hasAlpha } = await pages.open(original, pageOf(original, page), leavingOf(response));
      added.push(await addPage(db, original, { page, width, height, hasAlpha }));
    }
    response.status(201).json(added);
  });

  router.post('/:id/duplicate', async (request, response) => {
    response.status(201).json(found(await duplicateOriginal(db, idOf(request)), 'This original'));
  });

  router.delete('/:id', async (request, response) => {
    found(await setOriginalDeleted(db, idOf(request), true), 'This original');
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    found(await setOriginalDeleted(db, idOf(request), false), 'This original');
    response.status(204).end();
  });

  router.get('/:id/file', async (request, response) => {
    const original = found(await findOriginal(db, idOf(request)), 'This original');
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
      const original = found(await findOriginal(db, idOf(request)), 'This original');
      const proof = await proofs.get(previewPlan(original), WidthSchema.parse(request.query.width));
      response.type(proof.type);
      response.sendFile(proof.path, { immutable: true, maxAge: '1y', dotfiles: 'allow' });
    }),
  );

  return router;
}
