import { createReadStream } from 'node:fs';
import { basename } from 'node:path';
import type { Original } from '@inkwell/core/model';
import { mapTwoAtATime } from '../../running/mapTwoAtATime.ts';
import type { Services } from '../../services.ts';
import { seenOf } from '../../tasks/library/lookingAt.ts';
import { type Context, shown } from '../context.ts';
import { fileProblem } from '../failures.ts';
import { Progress } from '../progress.ts';
import { untilDone } from './untilDone.ts';

/** A picture that was not taken in, and why. */
export interface Refused {
  file: string;
  reason: string;
}

/** Takes pictures in, two at a time, by their files in their order; those that cannot be are said with the reason. */
export async function takeIn(
  context: Context,
  { importing }: Services,
  files: readonly string[],
  isQuiet: boolean,
): Promise<{ takenAs: Map<string, Original>; refused: Refused[] }> {
  const taken = new Map<number, Original>();
  const refused: Refused[] = [];
  const progress = new Progress('Taking in', files.length, isQuiet);
  await mapTwoAtATime(files, async (file, index) => {
    try {
      taken.set(index, await importing.take(createReadStream(file), basename(file)));
    } catch (error) {
      const reason = fileProblem(error, file);
      if (reason === null) throw error;
      refused.push({ file: shown(context, file), reason });
    }
    progress.at(taken.size + refused.length);
  });
  progress.end();
  const inOrder = files.flatMap((file, index): [string, Original][] => {
    const original = taken.get(index);
    return original ? [[file, original]] : [];
  });
  return { takenAs: new Map(inOrder), refused };
}

/** Waits until pictures were looked at, or could not be: frames that are composed before would come out otherwise than those after. */
export async function looked(services: Services, originals: readonly Original[], isQuiet: boolean): Promise<void> {
  if (!services.isLooking) return;
  const progress = new Progress('Looking at', originals.length, isQuiet);
  await untilDone(
    () => seenOf(services, originals),
    (seen) => {
      const waiting = seen.filter(({ analysis, failure }) => analysis === null && failure === null).length;
      progress.at(originals.length - waiting);
      return waiting === 0;
    },
  );
  progress.end();
}
