import { z } from 'zod';

/** What a client says of a frame. */
export const ReviewAnswerWordSchema = z.enum(['fine', 'look again']);
export type ReviewAnswerWord = z.infer<typeof ReviewAnswerWordSchema>;

export const NewReviewSchema = z.object({
  /** For whom it is, as the studio calls them. */
  name: z
    .string({ error: 'Say for whom the link is.' })
    .trim()
    .min(1, 'Say for whom the link is.')
    .max(80, 'A name can have at most 80 characters.'),
  days: z.int().min(1, 'A link holds for at least a day.').max(90, 'A link holds for at most 90 days.'),
});
export type NewReview = z.infer<typeof NewReviewSchema>;

/** What was said of a frame, and of which plan of it. */
export const ReviewAnswerSchema = z.object({
  frameId: z.uuid(),
  answer: ReviewAnswerWordSchema,
  /** Empty where nothing was written. */
  word: z.string(),
  planHash: z.string(),
  answeredAt: z.iso.datetime(),
});
export type ReviewAnswer = z.infer<typeof ReviewAnswerSchema>;

/** A link by which somebody without an account looks at a project. */
export const ReviewSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  madeBy: z.string().nullable(),
  createdAt: z.iso.datetime(),
  endsAt: z.iso.datetime(),
  /** Whether the link still opens anything. */
  holds: z.boolean(),
  answers: z.array(ReviewAnswerSchema),
});
export type Review = z.infer<typeof ReviewSchema>;
export const MadeReviewSchema = z.object({ review: ReviewSchema, link: z.string() });

/** A frame as whoever has the link sees it. */
export const ReviewedFrameSchema = z.object({
  id: z.uuid(),
  picture: z.string(),
  network: z.string(),
  place: z.string(),
  width: z.int(),
  height: z.int(),
  planHash: z.string(),
  answer: ReviewAnswerSchema.nullable(),
});
export type ReviewedFrame = z.infer<typeof ReviewedFrameSchema>;

/** What the link opens. */
export const OpenReviewSchema = z.object({
  project: z.string(),
  workspace: z.string(),
  name: z.string(),
  endsAt: z.iso.datetime(),
  frames: z.array(ReviewedFrameSchema),
});
export type OpenReview = z.infer<typeof OpenReviewSchema>;

export const NewAnswerSchema = z.object({
  answer: ReviewAnswerWordSchema,
  word: z.string().trim().max(500, 'A word can have at most 500 characters.').default(''),
  /** What was looked at: of something newer nothing was said. */
  planHash: z.string().max(100),
});
export type NewAnswer = z.input<typeof NewAnswerSchema>;
