import type { FramePosting, Original, PostingWords, ProjectPosting } from '../model/index.ts';

/** What is pasted where a frame is posted: its own words, or else those of its original and its project. */
export const postingWords = (
  original: Pick<Original, 'words'>,
  project: { posting: ProjectPosting },
  { posting }: { posting: FramePosting },
): PostingWords => ({
  altText: posting.altText ?? original.words.altText,
  caption: posting.caption ?? project.posting.caption,
  tags: posting.tags ?? project.posting.tags,
});
