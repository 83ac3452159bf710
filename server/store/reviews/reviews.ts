import type { Review, ReviewAnswer } from '@inkwell/core/model';
import { and, desc, eq, gt, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { reviewAnswers, reviews } from '../schema/index.ts';

const holds = and(isNull(reviews.withdrawnAt), gt(reviews.endsAt, sql`now()`));

type AnswerRow = typeof reviewAnswers.$inferSelect;

const toAnswer = ({ frameId, answer, word, planHash, answeredAt }: AnswerRow): ReviewAnswer => ({
  frameId,
  answer,
  word,
  planHash,
  answeredAt: answeredAt.toISOString(),
});

/** All links to a project with what was said by them, the newest first. */
export async function listReviews(db: Queryable, projectId: string): Promise<Review[]> {
  const rows = await db
    .select({ row: reviews, holds: sql<boolean>`${holds}` })
    .from(reviews)
    .where(eq(reviews.projectId, projectId))
    .orderBy(desc(reviews.createdAt));
  const said = await db.select().from(reviewAnswers).where(eq(reviewAnswers.projectId, projectId));
  return rows.map(({ row: { id, name, madeBy, createdAt, endsAt }, holds: isOpen }) => ({
    id,
    name,
    madeBy,
    createdAt: createdAt.toISOString(),
    endsAt: endsAt.toISOString(),
    holds: isOpen,
    answers: said.filter(({ reviewId }) => reviewId === id).map(toAnswer),
  }));
}

/** @returns the id */
export async function addReview(
  db: Queryable,
  { days, ...values }: { projectId: string; name: string; hash: string; madeBy: string | null; days: number },
): Promise<string> {
  const [row] = await db
    .insert(reviews)
    .values({ ...values, endsAt: sql`now() + make_interval(days => ${days})` })
    .returning({ id: reviews.id });
  if (!row) throw new Error('The link was not stored.');
  return row.id;
}

/** Withdraws a link for good. @returns for whom it was; null where it is not there, or was withdrawn before */
export async function withdrawReview(db: Queryable, id: string): Promise<string | null> {
  const rows = await db
    .update(reviews)
    .set({ withdrawnAt: sql`now()` })
    .where(and(eq(reviews.id, id), isNull(reviews.withdrawnAt)))
    .returning({ name: reviews.name });
  return rows[0]?.name ?? null;
}

/** A link that holds, and where it leads. */
export interface HeldReview {
  id: string;
  workspaceId: string;
  projectId: string;
  name: string;
  endsAt: Date;
}

/** The link with this hash, in whatever workspace; null where none holds. */
export async function holdingReview(whole: Queryable, hash: string): Promise<HeldReview | null> {
  const [row] = await whole
    .select()
    .from(reviews)
    .where(and(eq(reviews.hash, hash), holds));
  return row ?? null;
}

/** What was said by a link, by frame. */
export async function answersOf(db: Queryable, reviewId: string): Promise<Map<string, ReviewAnswer>> {
  const rows = await db.select().from(reviewAnswers).where(eq(reviewAnswers.reviewId, reviewId));
  return new Map(rows.map((row) => [row.frameId, toAnswer(row)]));
}

/** Keeps what was said of a frame; what was said of it before is gone. */
export async function keepAnswer(
  db: Queryable,
  answer: Pick<AnswerRow, 'reviewId' | 'projectId' | 'frameId' | 'answer' | 'word' | 'planHash'>,
): Promise<void> {
  await db
    .insert(reviewAnswers)
    .values(answer)
    .onConflictDoUpdate({
      target: [reviewAnswers.reviewId, reviewAnswers.frameId],
      set: { ...answer, answeredAt: sql`now()` },
    });
}
