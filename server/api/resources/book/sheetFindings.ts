import { SheetFindingSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { listSheetFindings } from '../../../store/library/sheetFindings.ts';
import { changeFinding } from '../../../tasks/book/measuredSheets.ts';
import { Resource } from '../../contracts/resource.ts';

const FindingStateSchema = z.object({
  version: z.int32().positive(),
  change: SheetFindingSchema.pick({ state: true }),
});

/** What dry runs have measured against the spec book. */
export function sheetFindings(services: Services): Resource {
  const routes = new Resource('/sheet-findings', 'Sheet findings');

  routes.get(
    '',
    { does: 'Lists what dry runs have measured against the spec book.', answers: z.array(SheetFindingSchema) },
    () => listSheetFindings(services.db),
  );

  routes.patch(
    '/:id',
    { does: 'Takes a sheet finding over, or leaves it.', takes: FindingStateSchema, answers: SheetFindingSchema },
    ({ id, body }) => changeFinding(services, id, body.version, body.change.state),
  );

  return routes;
}
