import { BookImportSchema, SpecSheetSchema, VersionWordsSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { projectPins } from '../../../store/projects/projects.ts';
import { bookAsCsv, bookAsJson } from '../../../tasks/book/bookFiles.ts';
import { planImport, sheetFiles, takeImport } from '../../../tasks/book/importBook.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';

const BookSchema = z.object({ project: z.uuid().optional() });
const BookFileAskedSchema = z.object({ sheet: z.string().max(80).optional(), as: z.enum(['json', 'csv']) });
const text = z.string().min(1, 'This file is empty.').max(20_000_000, 'A file can have at most 20 MB.');
const PlanImportSchema = z.object({ text });
const TakeImportSchema = z.object({
  text,
  take: z.array(z.object({ slug: z.string().max(80), version: z.int32().positive().nullable() })).max(2000),
  savedBy: VersionWordsSchema.shape.savedBy,
});

const types = { json: 'application/json', csv: 'text/csv; charset=utf-8' } as const;
/** A file of a whole spec book comes as one text. */
const large = { most: '24mb' } as const;

/** The spec book as it is now, or as a project has it that stays on older versions; in and out as files. */
export function specBook(services: Services): Resource {
  const { db, planner } = services;
  const routes = new Resource('/spec-book', 'Spec book');

  routes.get(
    '',
    {
      does: 'The spec book as it is now, or as a project has it that stays on older versions.',
      query: BookSchema,
      answers: z.array(SpecSheetSchema),
    },
    async ({ query: { project } }) => {
      const planning = await planner.open();
      const pins = project ? orNotFound(await projectPins(db, project), 'This project') : {};
      return [...planning.bookFor({ pins }).sheets];
    },
  );

  routes.get(
    '/file',
    {
      does: 'The spec book, or one sheet of it, as a file.',
      query: BookFileAskedSchema,
      sends: Object.values(types),
    },
    async ({ query: { sheet = null, as } }, response) => {
      const sheets = await sheetFiles(services, sheet);
      response.attachment(`${sheet ?? 'spec-book'}.${as}`).type(types[as]);
      response.send(as === 'json' ? bookAsJson(sheets) : bookAsCsv(sheets));
    },
  );

  routes.post(
    '/import',
    {
      does: 'What a file of sheets would do, line by line. Nothing is changed.',
      takes: PlanImportSchema,
      ...large,
      answers: BookImportSchema,
      changesNothing: true,
    },
    async ({ body }) => BookImportSchema.parse(await planImport(services, body.text)),
  );

  routes.post(
    '/import/take',
    {
      does: 'Takes sheets out of a file.',
      takes: TakeImportSchema,
      ...large,
      answers: z.object({ taken: z.int() }),
    },
    ({ body: { text: file, take, savedBy } }) => takeImport(services, file, take, savedBy),
  );

  return routes;
}
