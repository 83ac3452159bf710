import type { Original, Seen } from '@inkwell/core/model';
import { openBody, openProposals, openTilt, seenWords } from '@inkwell/core/proposing';

/** How far looking at an original is. */
export type Look = 'seen' | 'doubt' | 'not looked at' | 'waiting';

/** How far looking at an original is, and in words for people. @param seen undefined while it is not known */
export function lookOf(
  original: Pick<Original, 'marks' | 'decided' | 'trim'>,
  seen: Seen | undefined,
): { look: Look; words: string } {
  const analysis = seen?.analysis ?? null;
  if (!analysis) {
    return seen?.failure
      ? { look: 'not looked at', words: 'not looked at' }
      : { look: 'waiting', words: 'being looked at' };
  }
  const proposals = openProposals(original, analysis);
  const doubts = [
    ...(proposals.some(({ sureness }) => sureness === 'likely') ? ['not sure'] : []),
    ...(openTilt(original, analysis) === null ? [] : ['leans']),
    ...(openBody(original, analysis) === null ? [] : ['has an empty margin']),
  ];
  const found = proposals.length > 0 ? `seen: ${seenWords(proposals)}` : 'looked at';
  return { look: doubts.length > 0 ? 'doubt' : 'seen', words: [found, ...doubts].join('; ') };
}
