import type { ImageFormat, Survival, TriedUpload, UploadChoice } from '../model/index.ts';
import { choosesChroma, inFormat } from './choiceOf.ts';
import { bestOf } from './score.ts';

/** What may be chosen, beside what the frame has. */
export interface Room {
  /** Null stands for the place's own dimensions. */
  widths: readonly (number | null)[];
  formats: readonly ImageFormat[];
  /** Times the blend of the finish; only 1 where there is none. */
  strengths: readonly number[];
}

/** The qualities that are tried, the highest first. Below the last, what a network adds is seen no more than what is lost before. */
export const qualities = [95, 90, 84, 76, 68] as const;
const [highest] = qualities;

/** Nothing is found after more rounds: each begins where the last has found something better. */
const mostRounds = 3;

/** The ways that differ from a choice in one respect: a list for each. */
function besides(choice: UploadChoice, { widths, formats, strengths }: Room): UploadChoice[][] {
  return [
    widths.map((width) => ({ ...choice, width })),
    formats.map((format) => inFormat(choice, format, highest, '4:4:4')),
    choosesChroma(choice.format) ? (['4:4:4', '4:2:0'] as const).map((chroma) => ({ ...choice, chroma })) : [],
    choice.quality === null ? [] : qualities.map((quality) => ({ ...choice, quality })),
    strengths.map((strength) => ({ ...choice, strength })),
  ];
}

const keyOf = ({ width, format, quality, chroma, strength }: UploadChoice): string =>
  JSON.stringify([width, format, quality, chroma, strength]);

/**
 * Looks for the way to upload a frame after which the most of it is seen, one respect after the other, until no change of a single one
 * makes it better (coordinate descent).
 *
 * @param asSet how it is uploaded without that
 * @param attempt what a network makes of a choice; null where its place would not take the file
 * @throws RangeError where not even `asSet` can be tried
 */
export async function searchSurvival(
  asSet: UploadChoice,
  room: Room,
  attempt: (choice: UploadChoice) => Promise<TriedUpload | null>,
): Promise<Survival> {
  const known = new Map<string, TriedUpload | null>();
  const tryOnce = async (choice: UploadChoice): Promise<void> => {
    const key = keyOf(choice);
    if (!known.has(key)) known.set(key, await attempt(choice));
  };
  await tryOnce(asSet);
  const first = known.get(keyOf(asSet));
  if (!first) throw new RangeError('What is uploaded now cannot be tried.');
  const bestKnown = () => bestOf([first, ...[...known.values()].filter((one) => one !== null)]);
  for (let round = 0; round < mostRounds; round += 1) {
    const before = bestKnown();
    for (let respect = 0; respect < besides(asSet, room).length; respect += 1) {
      for (const choice of besides(bestKnown().choice, room)[respect] ?? []) await tryOnce(choice);
    }
    if (bestKnown() === before) break;
  }
  return { asSet: first, best: bestKnown(), tried: [...known.values()].filter((one) => one !== null).length };
}
