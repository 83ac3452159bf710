import type { NewAnswer, NewReview, OpenReview, Review } from '@inkwell/core/model';
import { workspaceName } from '../../store/access/workspaces.ts';
import type { Database, Queryable } from '../../store/database.ts';
import { type FramedPicture, framesOfProject } from '../../store/projects/frames.ts';
import { projectName } from '../../store/projects/projects.ts';
import {
  addReview,
  answersOf,
  type HeldReview,
  holdingReview,
  keepAnswer,
  listReviews,
  withdrawReview,
} from '../../store/reviews/reviews.ts';
import { orNotFound, UserError } from '../../userError.ts';
import type { WorkspaceTools } from '../../workspaces.ts';
import { type Asker, note } from '../access/asker.ts';
import { newLinkSecret, secretHash } from '../access/linkSecrets.ts';
import { type AskedFrame, askedFrame } from '../plans/askedFrame.ts';

/** Makes a link by which somebody without an account looks at a project. What it says is answered here and kept nowhere. */
export async function makeReview(
  { db, workspaceId }: Pick<WorkspaceTools, 'db' | 'workspaceId'>,
  whole: Database,
  { projectId, name, days }: NewReview & { projectId: string },
  asker: Asker,
): Promise<{ review: Review; link: string }> {
  orNotFound(await projectName(db, projectId), 'This project');
  const secret = newLinkSecret();
  const hash = secretHash(secret);
  const id = await addReview(db, { projectId, name, hash, madeBy: asker.person?.name ?? null, days });
  await note(whole, asker, 'review link made', name, { workspaceId });
  const review = orNotFound(
    (await listReviews(db, projectId)).find((one) => one.id === id),
    'This link',
  );
  return { review, link: `${asker.origin}/review#${secret}` };
}

/** Withdraws a link for good. @throws UserError where it is not there */
export async function endReview(
  { db, workspaceId }: Pick<WorkspaceTools, 'db' | 'workspaceId'>,
  whole: Database,
  id: string,
  asker: Asker,
): Promise<void> {
  const name = orNotFound(await withdrawReview(db, id), 'This link');
  await note(whole, asker, 'review link withdrawn', name, { workspaceId });
}

/** The link that says this. @throws UserError where none does, or it does not hold any more */
export async function heldReview(whole: Queryable, secret: string): Promise<HeldReview> {
  const held = secret === '' ? null : await holdingReview(whole, secretHash(secret));
  if (held) return held;
  throw new UserError('This link does not hold: it was withdrawn, has ended, or is cut off. Ask for another.', 404);
}

/** What is shown of a project to others: all that is not left out. */
const isShown = ({ frame }: FramedPicture): boolean => frame.verdict?.is !== 'leave out';

/** What a link opens: the wall as it will be delivered. @throws UserError where the project is gone */
export async function openReview(
  { db, planner }: WorkspaceTools,
  whole: Queryable,
  review: HeldReview,
): Promise<OpenReview> {
  const project = orNotFound(await projectName(db, review.projectId), 'This project');
  const [planning, framed, said] = await Promise.all([
    planner.open(),
    framesOfProject(db, review.projectId),
    answersOf(db, review.id),
  ]);
  const frames = framed.filter(isShown).flatMap((one): OpenReview['frames'] => {
    const [at, measuring] = [planning.atOf(one), planning.measuringOf(one)];
    if (!at || !measuring) return [];
    const { width, height } = measuring.plan.output;
    const { planHash } = measuring.planned;
    const answer = said.get(one.frame.id) ?? null;
    const names = { picture: one.original.name, network: at.network.name, place: at.place.name };
    return [{ id: one.frame.id, ...names, width, height, planHash, answer }];
  });
  const workspace = (await workspaceName(whole, review.workspaceId)) ?? '';
  return { project, workspace, name: review.name, endsAt: review.endsAt.toISOString(), frames };
}

/** A frame that a link shows, as it was shown. @throws UserError where it shows none like this */
export async function reviewedFrame(
  tools: WorkspaceTools,
  review: HeldReview,
  frameId: string,
  planHash: string,
): Promise<AskedFrame> {
  const asked = await askedFrame(tools, frameId, planHash);
  const isTheirs = asked.framed.frame.projectId === review.projectId && isShown(asked.framed);
  return orNotFound(isTheirs && asked, 'This picture');
}

/** Keeps what is said of a frame, as it was shown. @throws UserError where it has changed since */
export async function answerReview(
  tools: WorkspaceTools,
  review: HeldReview,
  frameId: string,
  { answer, word = '', planHash }: NewAnswer,
): Promise<void> {
  await reviewedFrame(tools, review, frameId, planHash);
  const { id: reviewId, projectId } = review;
  await keepAnswer(tools.db, { reviewId, projectId, frameId, answer, word, planHash });
}
