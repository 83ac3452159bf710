import { inThread } from '../imaging/threads.ts';
import { UserError } from '../userError.ts';
import type { FontFound } from './fontFile.ts';

const task = new URL('./fontFile.ts', import.meta.url);
/** Longer than this no font takes that is none of the damaged ones. */
const mostMs = 30_000;

/** Unpacks a font file and says what is in it. @throws UserError where it cannot be taken, in words */
export async function readFont(file: Buffer): Promise<Exclude<FontFound, { problem: string }>> {
  const ended = AbortSignal.timeout(mostMs);
  const found = await inThread<Uint8Array, FontFound>(task, file, 'arithmetic', ended).catch((error: unknown) => {
    if (!ended.aborted) throw error;
    return { problem: 'It takes too long to read this font. The file is damaged, or made to be so.' };
  });
  if ('problem' in found) throw new UserError(found.problem, 415);
  return found;
}
