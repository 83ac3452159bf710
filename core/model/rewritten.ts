import { z } from 'zod';
import { wordsSchema } from './lettering.ts';

const mostReplaced = 200;

/** Words of a drawing, by which of its texts they are, in the order of the file. */
export const ReplacedWordsSchema = z.object({ at: z.int().min(0).max(100_000), text: wordsSchema('Words') });

/** What a drawing says instead of what it said when it came. */
export const RewritingSchema = z.object({
  /** The family that the new words are set in. */
  family: z.string().min(1).max(120),
  words: z
    .array(ReplacedWordsSchema)
    .max(mostReplaced, `At most ${mostReplaced} texts of a drawing can be replaced.`)
    .refine((words) => new Set(words.map(({ at }) => at)).size === words.length, 'A text can be replaced only once.'),
});
export type Rewriting = z.infer<typeof RewritingSchema>;

/** The original that a rewritten one was made from, and how. */
export const RewrittenSchema = RewritingSchema.extend({ from: z.uuid() });
export type Rewritten = z.infer<typeof RewrittenSchema>;

/** The texts of a drawing that are still text. */
export const DrawnTextsSchema = z.object({
  texts: z.array(z.object({ at: z.int().min(0), text: z.string() })),
  /** How they are rewritten in this original; null in the one that they came with. */
  rewriting: RewritingSchema.nullable(),
});
export type DrawnTexts = z.infer<typeof DrawnTextsSchema>;
