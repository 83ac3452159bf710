import { BroughtBackSchema, OpenStepSchema, StepSchema } from '@inkwell/core/model';
import { planHash } from '@inkwell/core/planning';
import { z } from 'zod';
import type { DoorServices, OpenInside } from '../../../services.ts';
import { bringBack } from '../../../tasks/history/bringBack.ts';
import { historyOf, openStep, planThen } from '../../../tasks/history/history.ts';
import { notFound, UserError } from '../../../userError.ts';
import { idIn } from '../../contracts/params.ts';
import { Resource } from '../../contracts/resource.ts';
import { openAsked } from '../../door/access.ts';
import { sendPicture } from '../../sending/sendPicture.ts';

function numberOf(step: string | undefined): number {
  const number = z.coerce.number().int().positive().safeParse(step);
  if (!number.success) throw notFound('This address');
  return number.data;
}

/** In pixels: wide enough to be compared. */
const widest = 1600;
const PictureSchema = z.object({
  is: z.enum(['before', 'after']),
  width: z.coerce.number().int().min(16).max(widest),
  /** What it shows: the address is another where that is. */
  plan: z.string().max(100),
});

/** What was done to a project, and by whom. */
export const history =
  (inside: OpenInside) =>
  ({ whole }: DoorServices): Resource => {
    const routes = new Resource('/projects', 'History');

    routes.get(
      '/:id/history',
      {
        does: 'What was done to a project, the last step first; with the id of a step, what was done before that.',
        query: z.object({ before: z.coerce.number().int().positive().optional() }),
        answers: z.array(StepSchema),
      },
      ({ id, query }, response) => historyOf(openAsked(inside, response), whole, id, query.before ?? null),
    );

    routes.get(
      '/:id/history/:step',
      {
        does: 'A step with the frames that look otherwise since, or with all that there were then.',
        query: z.object({ frames: z.enum(['touched', 'all']).default('touched') }),
        answers: OpenStepSchema,
      },
      ({ id, params, query }, response) =>
        openStep(openAsked(inside, response), whole, id, numberOf(params.step), query.frames),
    );

    routes.get(
      '/:id/history/:step/frames/:frame/picture',
      {
        does: 'A frame as it was before a step, or after it.',
        query: PictureSchema,
        draws: true,
        sends: ['image/jpeg', 'image/png'],
      },
      async ({ id, params, query: { is, width, plan: asked } }, response) => {
        const services = openAsked(inside, response);
        const plan = await planThen(services, id, { step: numberOf(params.step), is }, idIn(params.frame));
        // A changed sheet or finish makes another picture of the same settings.
        if (planHash(plan) !== asked) throw new UserError('This frame would look otherwise by now. Reload.', 409);
        sendPicture(response, await services.proofs.get(plan, width));
      },
    );

    routes.post(
      '/:id/history/:step/bring-back',
      {
        does: 'Makes a project what it was after a step: a step of its own, which can be taken back in the same way.',
        answers: BroughtBackSchema,
      },
      ({ id, params }, response) => bringBack(openAsked(inside, response), id, numberOf(params.step)),
    );

    return routes;
  };
