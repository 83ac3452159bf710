import { countingSimilarity, type Similarity } from '@inkwell/core/model';
import { type Sharing, sharedOut } from '@inkwell/core/weighing';
import { mapTwoAtATime } from '../../running/mapTwoAtATime.ts';
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
    const needs = await allOf(pieces, (piece) => piece.needed(ladder, from));
    // What a piece needs may not be enough for another one, so all are asked again until none asks for more.
    shared = Math.max(bound, ...needs.map((need) => need ?? highest));
  }
  for (;;) {
    const bound = shared;
    const fits = await allOf(pieces, (piece) => piece.fitting(ladder, bound));
    if (fits.some((quality) => quality === null)) shared = lowestOf(ladder, highest);
    else shared = Math.min(bound, ...fits.map((quality) => quality ?? bound));
    // A file that fits may be too heavy one quality further down, so all are asked again until none objects.
    if (shared === bound || shared === lowestOf(ladder, highest)) break;
  }
  await mapTwoAtATime(pieces, (piece) => piece.take(shared));
}

/** What sharing a budget has to know of a piece beside that. */
export interface SharingPiece extends Settled {
  /** What was taken. */
  readonly quality: number | null;
  bytes(quality: number): Promise<number>;
  similarity(quality: number): Promise<Similarity>;
}

/**
 * Makes pieces that were settled fit a budget that all have together, where they do not: at the highest quality that does where they share
 * one, or else so that the worst of them is as good as possible. None gets a higher quality than it had.
 */
export async function settleWithin(
  pieces: readonly SharingPiece[],
  { qualities }: Ladder,
  budget: number,
  isShared: boolean,
): Promise<void> {
  const taken = await allOf(pieces, (piece) => piece.bytes(piece.quality ?? 0));
  if (sum(taken) <= budget) return;
  const upTo = ({ quality: most }: SharingPiece) => {
    const allowed = qualities.filter((quality) => quality <= (most ?? Number.POSITIVE_INFINITY));
    return allowed.length > 0 ? allowed : qualities.slice(0, 1);
  };
  const asOne: Sharing = {
    qualities: pieces[0] ? upTo(pieces[0]) : [],
    bytes: async (quality) => sum(await allOf(pieces, (piece) => piece.bytes(quality))),
    worth: async (quality) => quality,
  };
  const apart = pieces.map(
    (piece): Sharing => ({
      qualities: upTo(piece),
      bytes: (quality) => piece.bytes(quality),
      worth: async (quality) => countingSimilarity(await piece.similarity(quality)),
    }),
  );
  const settled = await sharedOut(isShared ? [asOne] : apart, budget);
  // Where nothing fits, the lightest there is: it is said to be too heavy.
  await mapTwoAtATime(pieces, (piece, index) => piece.take(settled?.[isShared ? 0 : index] ?? qualities[0] ?? 0));
}

const sum = (values: readonly number[]) => values.reduce((all, one) => all + one, 0);

const lowestOf = ({ qualities }: Ladder, highest: number): number => qualities[0] ?? highest;

/** What every piece answers, in the order of the pieces. */
async function allOf<Piece, Answer>(
  pieces: readonly Piece[],
  ask: (piece: Piece) => Promise<Answer>,
): Promise<Answer[]> {
  const given: Answer[] = [];
  await mapTwoAtATime(pieces, async (piece, index) => {
    given[index] = await ask(piece);
  });
  return given;
}
