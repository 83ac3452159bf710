import type { ImageFormat, Survival, TriedUpload, UploadChoice } from '../model/index.ts';
import { choosesChroma, inFormat } from './choiceOf.ts';
import { bestOf, noDifference, scoreOf } from './score.ts';

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

/** Ways that differ from a choice in one respect. */
interface Respect {
  ways: UploadChoice[];
  /** From the most that is left on: after one that leaves less than another, none is tried. */
  falls: boolean;
}

/** What can be changed about a choice. Qualities come last: what else is chosen decides how low they may be. */
function besides(choice: UploadChoice, { widths, formats, strengths }: Room): Respect[] {
  const any = (ways: UploadChoice[]): Respect => ({ ways, falls: false });
  return [
    any(widths.map((width) => ({ ...choice, width }))),
    any(formats.map((format) => inFormat(choice, format, highest, '4:4:4'))),
    any(choosesChroma(choice.format) ? (['4:4:4', '4:2:0'] as const).map((chroma) => ({ ...choice, chroma })) : []),
    any(strengths.map((strength) => ({ ...choice, strength }))),
    { ways: choice.quality === null ? [] : qualities.map((quality) => ({ ...choice, quality })), falls: true },
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
  const tried = async (choice: UploadChoice): Promise<TriedUpload | null> => {
    const key = keyOf(choice);
    const before = known.get(key);
    if (before !== undefined) return before;
    const found = await attempt(choice);
    known.set(key, found);
    return found;
  };
  const first = await tried(asSet);
  if (!first) throw new RangeError('What is uploaded now cannot be tried.');
  const bestKnown = () => bestOf([first, ...[...known.values()].filter((one) => one !== null)]);
  for (let round = 0; round < mostRounds; round += 1) {
    const before = bestKnown();
    const count = besides(before.choice, room).length;
    for (let at = 0; at < count; at += 1) {
      const { ways, falls } = besides(bestKnown().choice, room)[at] ?? { ways: [], falls: false };
      let most = -Infinity;
      for (const choice of ways) {
        const found = await tried(choice);
        if (!found) continue;
        most = Math.max(most, scoreOf(found));
        if (falls && scoreOf(found) < most - noDifference) break;
      }
    }
    if (bestKnown() === before) break;
  }
  return { asSet: first, best: bestKnown(), tried: [...known.values()].filter((one) => one !== null).length };
}
