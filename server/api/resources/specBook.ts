import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { projectPins } from '../../store/projects/projects.ts';
import { orNotFound } from '../../userError.ts';

export const BookSchema = z.object({ project: z.uuid().optional() });

/** The spec book as it is now, or as a project has it that stays on older versions. */
export function specBookRouter({ db, planner }: Services): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    const { project } = BookSchema.parse(request.query);
    const planning = await planner.open();
    const pins = project ? orNotFound(await projectPins(db, project), 'This project') : {};
    response.json(planning.bookFor({ pins }).sheets);
  });

  return router;
}
