import { shippedStyles } from '@inkwell/core/lettering';
import { LetterStyleFileSchema, LetterStyleSettingsSchema, NamedLetterStyleSchema } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import {
  addLetterStyle,
  findLetterStyle,
  listLetterStyles,
  setLetterStyleDeleted,
} from '../../../store/library/letterStyles.ts';
import { orNotFound } from '../../../userError.ts';
import { JsonSchema } from '../../contracts/jsonSchema.ts';
import { idIn } from '../../contracts/params.ts';
import { Resource } from '../../contracts/resource.ts';

/** Styles of words that people made: kept under a name, put aside and taken back, written to files and read from them. */
export function letterStyles({ db }: Pick<Services, 'db'>): Resource {
  const routes = new Resource('/letter-styles', 'Styles of words');

  routes.get(
    '',
    { does: 'Lists the styles of words that people made.', answers: z.array(NamedLetterStyleSchema) },
    () => listLetterStyles(db),
  );

  routes.get(
    '/schema',
    { does: 'What the file of a style has to be, as JSON Schema.', answers: JsonSchema },
    async () => z.toJSONSchema(LetterStyleFileSchema),
  );

  routes.post(
    '',
    { does: 'Keeps a style of words.', takes: LetterStyleSettingsSchema, answers: NamedLetterStyleSchema, status: 201 },
    ({ body }) => addLetterStyle(db, body),
  );

  routes.post(
    '/import',
    {
      does: 'Takes a style of words in from a file.',
      takes: LetterStyleFileSchema,
      answers: NamedLetterStyleSchema,
      status: 201,
    },
    ({ body: { inkwellLetterStyle: _, ...settings } }) => addLetterStyle(db, settings),
  );

  routes.get(
    '/:style/file',
    { does: 'A style of words as a file: one that people made, or one that ships.', sends: ['application/json'] },
    async ({ params: { style: asked = '' } }, response) => {
      const shipped = shippedStyles.find(({ id }) => id === asked);
      const { name, style } = shipped ?? orNotFound(await findLetterStyle(db, idIn(asked)), 'This style');
      response.attachment(`${fileNameWord(name) || 'style'}.letter-style.json`);
      response.type('json').send(JSON.stringify({ inkwellLetterStyle: 1, name, style }, null, 2));
    },
  );

  routes.delete('/:id', { does: 'Puts a style aside.' }, async ({ id }) => {
    orNotFound(await setLetterStyleDeleted(db, id, true), 'This style');
  });

  routes.post('/:id/restore', { does: 'Takes a style back that was put aside.' }, async ({ id }) => {
    orNotFound(await setLetterStyleDeleted(db, id, false), 'This style');
  });

  return routes;
}
