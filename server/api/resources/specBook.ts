import { VersionWordsSchema } from '@inkwell/core/model';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { projectPins } from '../../store/projects/projects.ts';
import { bookAsCsv, bookAsJson } from '../../tasks/book/bookFiles.ts';
import { planImport, sheetFiles, takeImport } from '../../tasks/book/importBook.ts';
import { orNotFound } from '../../userError.ts';

export const BookSchema = z.object({ project: z.uuid().optional() });
export const BookFileAskedSchema = z.object({ sheet: z.string().max(80).optional(), as: z.enum(['json', 'csv']) });
const text = z.string().min(1, 'This file is empty.').max(20_000_000, 'A file can have at most 20 MB.');
export const PlanImportSchema = z.object({ text });
export const TakeImportSchema = z.object({
  text,
  take: z.array(z.object({ slug: z.string().max(80), version: z.int32().positive().nullable() })).max(2000),
  savedBy: VersionWordsSchema.shape.savedBy,
});

const types = { json: 'application/json', csv: 'text/csv; charset=utf-8' } as const;

/** The spec book as it is now, or as a project has it that stays on older versions; in and out as files. */
export function specBookRouter(services: Services): Router {
  const { db, planner } = services;
  const router = Router();

  router.get('/', async (request, response) => {
    const { project } = BookSchema.parse(request.query);
    const planning = await planner.open();
    const pins = project ? orNotFound(await projectPins(db, project), 'This project') : {};
    response.json(planning.bookFor({ pins }).sheets);
  });

  router.get('/file', async (request, response) => {
    const { sheet = null, as } = BookFileAskedSchema.parse(request.query);
    const sheets = await sheetFiles(services, sheet);
    response.attachment(`${sheet ?? 'spec-book'}.${as}`).type(types[as]);
    response.send(as === 'json' ? bookAsJson(sheets) : bookAsCsv(sheets));
  });

  // What a file would do, line by line: nothing is changed.
  router.post('/import', async (request, response) => {
    response.json(await planImport(services, PlanImportSchema.parse(request.body).text));
  });

  router.post('/import/take', async (request, response) => {
    const { text: file, take, savedBy } = TakeImportSchema.parse(request.body);
    response.json(await takeImport(services, file, take, savedBy));
  });

  return router;
}
