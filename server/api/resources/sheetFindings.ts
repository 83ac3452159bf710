import { SheetFindingSchema } from '@inkwell/core/model';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { listSheetFindings } from '../../store/library/sheetFindings.ts';
import { changeFinding } from '../../tasks/book/measuredSheets.ts';
import { idOf } from '../params.ts';

export const FindingStateSchema = z.object({
  version: z.int32().positive(),
  change: SheetFindingSchema.pick({ state: true }),
});

/** What dry runs have measured against the spec book. */
export function sheetFindingsRouter(services: Services): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await listSheetFindings(services.db));
  });

  router.patch('/:id', async (request, response) => {
    const { version, change } = FindingStateSchema.parse(request.body);
    response.json(await changeFinding(services, idOf(request), version, change.state));
  });

  return router;
}
