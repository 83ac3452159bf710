import { mapTwoAtATime } from '../../mapTwoAtATime.ts';
import type { Ladder } from './encoders.ts';

/** What choosing a quality has to know of a piece. */
export interface Settled {
  /** The lowest quality, from `from` on, that holds the plan's level; null where it has none, and where no quality does. */
  needed(ladder: Ladder, from?: number): Promise<number | null>;
  /** The quality of the lightest file that holds the plan's level; null as above. */
  lightest(ladder: Ladder): Promise<number | null>;
  /** The highest quality up to `highest` that fits; null where none does. */
  fitting(ladder: Ladder, highest: number): Promise<number | null>;
  take(quality: number): Promise<void>;
}

/** Chooses the file of a piece by itself: the lightest that holds the level, or as good as fits. */
export async function settleAlone(piece: Settled, ladder: Ladder, highest: number): Promise<void> {
  const wanted = (await piece.lightest(ladder)) ?? highest;
  await piece.take((await piece.fitting(ladder, wanted)) ?? lowestOf(ladder, highest));
}

/**
 * Gives all pieces one quality: what holds the level in every one, or the highest that fits in all where that is too heavy.
 * Every step first asks all pieces the same and then puts the answers together, so that it never matters which piece is quicker.
 */
export async function settleTogether(pieces: readonly Settled[], ladder: Ladder, highest: number): Promise<void> {
  // What is enough for the first usually is enough for all: the others look from there on.
  let shared = (await pieces[0]?.needed(ladder)) ?? highest;
  for (let bound = Number.NaN; shared !== bound; ) {
    bound = shared;
    const from = bound;
    const needs = await answers(pieces, (piece) => piece.needed(ladder, from));
    // What a piece needs may not be enough for another one, so all are asked again until none asks for more.
    shared = Math.max(bound, ...needs.map((need) => need ?? highest));
  }
  for (;;) {
    const bound = shared;
    const fits = await answers(pieces, (piece) => piece.fitting(ladder, bound));
    if (fits.some((quality) => quality === null)) shared = lowestOf(ladder, highest);
    else shared = Math.min(bound, ...fits.map((quality) => quality ?? bound));
    // A file that fits may be too heavy one quality further down, so all are asked again until none objects.
    if (shared === bound || shared === lowestOf(ladder, highest)) break;
  }
  await mapTwoAtATime(pieces, (piece) => piece.take(shared));
}

const lowestOf = ({ qualities }: Ladder, highest: number): number => qualities[0] ?? highest;

/** What every piece answers, in the order of the pieces. */
async function answers(
  pieces: readonly Settled[],
  ask: (piece: Settled) => Promise<number | null>,
): Promise<(number | null)[]> {
  const given: (number | null)[] = [];
  await mapTwoAtATime(pieces, async (piece, index) => {
    given[index] = await ask(piece);
  });
  return given;
}
