import {
  MadeReviewSchema,
  NewAnswerSchema,
  NewReviewSchema,
  OpenReviewSchema,
  ReviewSchema,
} from '@inkwell/core/model';
import type { Request } from 'express';
import { z } from 'zod';
import type { DoorServices, OpenInside } from '../../../services.ts';
import { listReviews } from '../../../store/reviews/reviews.ts';
import {
  answerReview,
  endReview,
  heldReview,
  makeReview,
  openReview,
  reviewedFrame,
} from '../../../tasks/reviewing/reviewing.ts';
import { Resource } from '../../contracts/resource.ts';
import { askerOf, openAsked } from '../../door/access.ts';
import { sendPicture } from '../../sending/sendPicture.ts';

/** By which a page shows what stands in its link: it is in no address, and in no log. */
const header = 'X-Inkwell-Review';
/** Wide enough to look at, and not for more. */
const widest = 1600;
const PictureSchema = z.object({ plan: z.string(), width: z.coerce.number().int().min(16).max(widest) });
/** Whoever has the link is let in by it alone. */
const byLink = { isOpen: true } as const;

/** Links by which people without an account look at a project, and what they say. */
export const reviews =
  (inside: OpenInside) =>
  ({ whole }: DoorServices): Resource => {
    const routes = new Resource('/reviews', 'Review links');
    const held = (request: Request) => heldReview(whole, request.get(header) ?? '');

    routes.get(
      '',
      {
        does: 'Lists the review links of a project, with what was said by each.',
        query: z.object({ projectId: z.uuid() }),
        answers: z.array(ReviewSchema),
      },
      ({ query }, response) => listReviews(openAsked(inside, response).db, query.projectId),
    );

    routes.post(
      '',
      {
        does: 'Makes a link by which somebody without an account sees the frames of a project, and says of each whether it is fine. The link is told once.',
        takes: NewReviewSchema.extend({ projectId: z.uuid() }),
        answers: MadeReviewSchema,
        status: 201,
      },
      ({ body, request }, response) => makeReview(openAsked(inside, response), whole, body, askerOf(request, response)),
    );

    routes.get(
      '/opened',
      {
        does: `What a review link opens. The link's secret is the header ${header}.`,
        ...byLink,
        answers: OpenReviewSchema,
      },
      async ({ request }) => {
        const review = await held(request);
        return openReview(inside(review.workspaceId), whole, review);
      },
    );

    routes.get(
      '/opened/frames/:id/picture',
      {
        does: 'A frame as a review link shows it.',
        ...byLink,
        query: PictureSchema,
        draws: true,
        sends: ['image/jpeg', 'image/png'],
      },
      async ({ id, query, request }, response) => {
        const review = await held(request);
        const services = inside(review.workspaceId);
        const { plan } = await reviewedFrame(services, review, id, query.plan);
        sendPicture(response, await services.proofs.get(plan, query.width));
      },
    );

    routes.post(
      '/opened/frames/:id',
      { does: 'Says of a frame that a review link shows whether it is fine.', ...byLink, takes: NewAnswerSchema },
      async ({ id, body, request }) => {
        const review = await held(request);
        await answerReview(inside(review.workspaceId), review, id, body);
      },
    );

    routes.delete('/:id', { does: 'Withdraws a review link for good.' }, ({ id, request }, response) =>
      endReview(openAsked(inside, response), whole, id, askerOf(request, response)),
    );

    return routes;
  };
