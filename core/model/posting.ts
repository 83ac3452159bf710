import { z } from 'zod';
import { WordsSchema } from './words.ts';

const caption = z.string().trim().max(5000, 'A caption can have at most 5,000 characters.');
const tags = z.string().trim().max(1000, 'Tags can have at most 1,000 characters together.');

/** What is said with all pictures of a project where they are posted; empty where nothing is. */
export const ProjectPostingSchema = z.object({ caption, tags });
export type ProjectPosting = z.infer<typeof ProjectPostingSchema>;
export const nothingSaid: ProjectPosting = { caption: '', tags: '' };

/** The same of one frame: null where its original has the alternative text, and its project the rest. */
export const FramePostingSchema = z.object({
  altText: WordsSchema.shape.altText.nullable(),
  caption: caption.nullable(),
  tags: tags.nullable(),
});
export type FramePosting = z.infer<typeof FramePostingSchema>;
export const asAbove: FramePosting = { altText: null, caption: null, tags: null };

/** Words that are pasted where a picture is posted; empty where there are none. */
export const PostingWordsSchema = z.object({ altText: z.string(), caption: z.string(), tags: z.string() });
export type PostingWords = z.infer<typeof PostingWordsSchema>;
