import {
  ColourAtSchema,
  ColoursOfSchema,
  DrawnTextsSchema,
  NameSchema,
  OriginalSchema,
  OriginalSettingsSchema,
  TrimProposalSchema,
} from '@inkwell/core/model';
import { wholePlan } from '@inkwell/core/planning';
import { z } from 'zod';
import { bodyOf } from '../../../imaging/measuring/bodyOf.ts';
import { colourAt, proposeColours } from '../../../imaging/measuring/colours.ts';
import { proposeTrim } from '../../../imaging/measuring/trimming.ts';
import type { Services } from '../../../services.ts';
import { readBlob } from '../../../store/blobs/blobs.ts';
import {
  duplicateOriginal,
  findOriginal,
  listOriginals,
  renameOriginal,
  setOriginalDeleted,
} from '../../../store/library/originals.ts';
import { changeOriginal, pageOf, takeOriginalBack, takePages } from '../../../tasks/library/changeOriginal.ts';
import { queueLooking, switchedOff } from '../../../tasks/library/lookingAt.ts';
import { drawnTexts } from '../../../tasks/library/rewriting.ts';
import { orNotFound, UserError } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';
import { sendPicture } from '../../sending/sendPicture.ts';
import { uploadedFile } from '../../sending/upload.ts';

const PointSchema = z.object({ x: z.coerce.number().int().min(0), y: z.coerce.number().int().min(0) });
const PageSchema = z.coerce.number().int().min(0);
const PreviewSchema = z.object({ width: z.coerce.number().int().min(16).max(4000) });
const SettingsSchema = z.object({ version: z.int32().positive(), change: OriginalSettingsSchema.partial() });
const TrimOptionsSchema = z.object({
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

const what = 'This original';

export function originals(services: Services): Resource {
  const { db, importing, pages, proofs, copies } = services;
  const routes = new Resource('/originals', 'Originals');
  const found = async (id: string) => orNotFound(await findOriginal(db, id), what);

  routes.get('', { does: 'Lists all originals of the library.', answers: z.array(OriginalSchema) }, () =>
    listOriginals(db),
  );

  routes.post(
    '',
    { does: 'Takes a picture in: one a request.', file: true, answers: OriginalSchema, status: 201 },
    ({ request, leaving }) => uploadedFile(request, (stream, name) => importing.take(stream, name, leaving)),
  );

  routes.patch(
    '/:id',
    { does: 'Renames an original.', takes: z.object({ name: NameSchema }), answers: OriginalSchema },
    async ({ id, body }) => orNotFound(await renameOriginal(db, id, body.name), what),
  );

  routes.patch(
    '/:id/settings',
    {
      does: 'Changes what is set on an original, such as its marks. Answers 409 with it as it is, where that is not of the version named.',
      takes: SettingsSchema,
      answers: OriginalSchema,
    },
    ({ id, body }) => changeOriginal(services, id, body.version, body.change),
  );

  routes.get(
    '/:id/texts',
    { does: 'What a drawing says in texts that are still text.', answers: DrawnTextsSchema },
    ({ id }) => drawnTexts(services, id),
  );

  routes.post(
    '/:id/look',
    { does: 'Looks at an original again, where that did not work.', status: 202 },
    async ({ id }) => {
      const original = await found(id);
      if (!services.isLooking) throw new UserError(switchedOff, 409);
      await queueLooking(db, [original], true);
    },
  );

  routes.get(
    '/:id/trim',
    {
      does: 'What could be left away of an empty margin, with and without all that lies beside its body. Nothing is changed.',
      query: TrimOptionsSchema,
      draws: true,
      answers: TrimProposalSchema,
    },
    async ({ id, query: { tolerance, shadow } }) => {
      const original = await found(id);
      const trim = await proposeTrim(original, { tolerance, shadow: shadow === 'kept' }, copies);
      return { trim, body: await bodyOf(original, copies) };
    },
  );

  routes.get(
    '/:id/colours',
    { does: 'Up to five colours that stand for an original.', draws: true, answers: ColoursOfSchema },
    async ({ id }) => ({ colours: await proposeColours(await found(id), copies) }),
  );

  routes.get(
    '/:id/colour',
    {
      does: 'The colour of one pixel of an original; null where it is transparent.',
      query: PointSchema,
      draws: true,
      answers: ColourAtSchema,
    },
    async ({ id, query: at }) => {
      const original = await found(id);
      if (at.x >= original.width || at.y >= original.height) {
        throw new UserError(
          `There is no pixel ${at.x}, ${at.y}: the picture is ${original.width} × ${original.height} px.`,
        );
      }
      return { colour: await colourAt(original, at, copies) };
    },
  );

  routes.get(
    '/:id/pages/:page/preview',
    { does: 'A small picture of one page or frame of an original’s file.', sends: ['image/jpeg'] },
    async ({ id, params, leaving }, response) => {
      const original = await found(id);
      const page = pageOf(original, PageSchema.parse(params.page));
      sendPicture(response, { path: await pages.preview(original, page, leaving), type: 'image/jpeg' });
    },
  );

  routes.post(
    '/:id/pages',
    {
      does: 'Takes other pages of a file that came in: each becomes an original of its own over the same bytes.',
      takes: z.object({ pages: z.array(PageSchema).min(1).max(200) }),
      answers: z.array(OriginalSchema),
      status: 201,
    },
    async ({ id, body, leaving }) => takePages(services, await found(id), body.pages, leaving),
  );

  routes.post(
    '/:id/duplicate',
    { does: 'Copies an original, over the same bytes.', answers: OriginalSchema, status: 201 },
    async ({ id }) => orNotFound(await duplicateOriginal(db, id), what),
  );

  routes.delete('/:id', { does: 'Puts an original aside.' }, async ({ id }) => {
    orNotFound(await setOriginalDeleted(db, id, true), what);
  });

  routes.post('/:id/restore', { does: 'Takes an original back that was put aside.' }, async ({ id }) => {
    await takeOriginalBack(services, id);
  });

  routes.get(
    '/:id/file',
    { does: 'The file of an original, byte by byte as it came in.', sends: Object.values(mediaTypes) },
    async ({ id }, response) => {
      const original = await found(id);
      response.attachment(original.fileName);
      response.type(mediaTypes[original.format]);
      response.setHeader('Content-Length', original.bytes);
      readBlob(db, original.sha256)
        .on('error', (error) => response.destroy(error))
        .pipe(response);
    },
  );

  routes.get(
    '/:id/preview',
    {
      does: 'A picture of the whole original, at most so many pixels wide.',
      query: PreviewSchema,
      draws: true,
      sends: ['image/jpeg', 'image/png'],
    },
    async ({ id, query }, response) => {
      sendPicture(response, await proofs.get(wholePlan(await found(id)), query.width));
    },
  );

  return routes;
}
