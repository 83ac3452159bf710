import { FontFamilySchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { setOwnFontDeleted } from '../../../store/library/ownFonts.ts';
import { addFont } from '../../../tasks/library/addFont.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';
import { uploadedFile } from '../../sending/upload.ts';

const own = z.string().regex(/^own-[0-9a-f]{24}$/, 'Only fonts that were added can be put aside.');
const what = 'This font';

/** The fonts that words can be set in: those that ship, and those that people add. */
export function fonts({ db, planner, fonts: files }: Pick<Services, 'db' | 'planner' | 'fonts'>): Resource {
  const routes = new Resource('/fonts', 'Fonts');

  routes.get('', { does: 'Lists all fonts.', answers: z.array(FontFamilySchema) }, async () => [
    ...(await planner.open()).book.families,
  ]);

  routes.post(
    '',
    { does: 'Adds a font from a file.', file: true, answers: FontFamilySchema, status: 201 },
    async ({ request }) => {
      const id = await uploadedFile(request, (stream, name) => addFont({ db, planner }, stream, name), 'font');
      const { book } = await planner.open();
      return orNotFound(
        book.families.find((one) => one.id === id),
        what,
      );
    },
  );

  routes.delete('/:font', { does: 'Puts a font aside that was added.' }, async ({ params }) => {
    orNotFound(await setOwnFontDeleted(db, own.parse(params.font), true), what);
  });

  routes.post('/:font/restore', { does: 'Takes a font back that was put aside.' }, async ({ params }) => {
    orNotFound(await setOwnFontDeleted(db, own.parse(params.font), false), what);
  });

  // A file never changes under its id while the page that asked for it is open.
  routes.get(
    '/files/:file',
    { does: 'The file of a font.', sends: ['font/ttf'] },
    async ({ params: { file = '' } }, response) => {
      await planner.open();
      const path = orNotFound(files.pathOf(file), what);
      response.setHeader('Cache-Control', 'private, max-age=86400');
      response.type('font/ttf').sendFile(path, { dotfiles: 'allow', cacheControl: false });
    },
  );

  return routes;
}
