import { z } from 'zod';
import type { WorkTask } from './schema/index.ts';

const SidesSchema = z.object({ width: z.number(), height: z.number() });
const SizedSchema = z.object({ original: SidesSchema, output: SidesSchema });

const area = ({ width, height }: z.infer<typeof SidesSchema>) => width * height;

/** A picture is drawn from at most twice its sides. */
const drawnFrom = 4;
/** What a detector holds beside the picture. */
const looking = 30_000_000;
/** A search for the best upload tries a frame of this kind at a time: about as large as places are. */
const searching = 40_000_000;

/** About how many pixels lie in memory while something is done: of the original, where it has to be decoded, and of the frame. */
export function pixelsInWork(task: WorkTask): number {
  if (task.kind === 'analyse') return area(task.picture) + looking;
  if (task.kind === 'survival') return searching;
  if (!('plan' in task)) return 0;
  const sized = SizedSchema.safeParse(task.plan).data;
  return sized ? area(sized.original) + drawnFrom * area(sized.output) : 0;
}
