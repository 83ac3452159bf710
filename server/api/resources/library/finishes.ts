import { finishById } from '@inkwell/core/finishing';
import { FinishesSchema, FinishFileSchema, FinishSchema, FinishSettingsSchema } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { addFinish, findFinish, finishUses, listFinishes, setFinishDeleted } from '../../../store/library/finishes.ts';
import { changeFinish, putFinishAside } from '../../../tasks/library/changeFinish.ts';
import { orNotFound } from '../../../userError.ts';
import { JsonSchema } from '../../contracts/jsonSchema.ts';
import { idIn } from '../../contracts/params.ts';
import { Resource } from '../../contracts/resource.ts';

const SaveSchema = z.object({ version: z.int32().positive(), change: FinishSettingsSchema.partial() });

/** Finishes that people make: added, changed, put aside and taken back, written to files and read from them. */
export function finishes(services: Services): Resource {
  const { db } = services;
  const routes = new Resource('/finishes', 'Finishes');

  routes.get(
    '',
    { does: 'Lists the finishes that people made, and how often each is used.', answers: FinishesSchema },
    async () => ({ finishes: await listFinishes(db), uses: Object.fromEntries(await finishUses(db)) }),
  );

  routes.get(
    '/schema',
    { does: 'What the file of a finish has to be, as JSON Schema.', answers: JsonSchema },
    async () => z.toJSONSchema(FinishFileSchema),
  );

  routes.post(
    '',
    { does: 'Makes a finish.', takes: FinishSettingsSchema, answers: FinishSchema, status: 201 },
    ({ body }) => addFinish(db, body),
  );

  routes.post(
    '/import',
    { does: 'Takes a finish in from a file.', takes: FinishFileSchema, answers: FinishSchema, status: 201 },
    ({ body: { inkwellFinish: _, ...settings } }) => addFinish(db, settings),
  );

  routes.get(
    '/:finish/file',
    { does: 'A finish as a file: one that people made, or one that ships.', sends: ['application/json'] },
    async ({ params: { finish: id = '' } }, response) => {
      const shipped = finishById(id, []);
      const finish = shipped.id === id ? shipped : orNotFound(await findFinish(db, idIn(id)), 'This finish');
      const { name, description, treatment } = finish;
      response.attachment(`${fileNameWord(name) || 'finish'}.finish.json`);
      response.type('json').send(JSON.stringify({ inkwellFinish: 1, name, description, treatment }, null, 2));
    },
  );

  routes.patch('/:id', { does: 'Changes a finish.', takes: SaveSchema, answers: FinishSchema }, ({ id, body }) =>
    changeFinish(services, id, body.version, body.change),
  );

  routes.delete('/:id', { does: 'Puts a finish aside.' }, async ({ id }) => {
    await putFinishAside(services, id);
  });

  routes.post('/:id/restore', { does: 'Takes a finish back that was put aside.' }, async ({ id }) => {
    orNotFound(await setFinishDeleted(db, id, false), 'This finish');
  });

  return routes;
}
