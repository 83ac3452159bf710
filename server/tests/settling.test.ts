import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Ladder } from '../imaging/encoding/encoders.ts';
import { settleAlone, settleTogether } from '../imaging/encoding/settling.ts';

const qualities = [10, 20, 30, 40, 50];
const ladder: Ladder = {
  qualities,
  tolerance: 0,
  slack: 0,
  sketch: async () => 0,
  estimate: null,
};
const highest = 50;

/** What is true of a piece: which qualities hold its level, and which fit. Neither has to end at one quality. */
const aPiece = fc.record({
  holds: fc.array(fc.boolean(), { minLength: qualities.length, maxLength: qualities.length }),
  fits: fc.array(fc.boolean(), { minLength: qualities.length, maxLength: qualities.length }),
});
type Piece = typeof aPiece extends fc.Arbitrary<infer Value> ? Value : never;

/** The piece as it answers: each time when the scheduler lets it. */
function answering({ holds, fits }: Piece, scheduler: fc.Scheduler) {
  const taken: number[] = [];
  const later = <Value>(value: Value) => scheduler.schedule(Promise.resolve(value));
  return {
    taken,
    needed: (_: Ladder, from = 0) => later(qualities.find((quality, at) => quality >= from && holds[at]) ?? null),
    lightest: () => later(qualities.find((_, at) => holds[at]) ?? null),
    fitting: (_: Ladder, most: number) =>
      later(qualities.findLast((quality, at) => quality <= most && fits[at]) ?? null),
    async take(quality: number) {
      await later(null);
      taken.push(quality);
    },
  };
}

async function settled(pieces: Piece[], scheduler: fc.Scheduler) {
  const searches = pieces.map((piece) => answering(piece, scheduler));
  await scheduler.waitFor(settleTogether(searches, ladder, highest));
  return searches.map(({ taken }) => taken);
}

test('pieces that share a quality come out the same, whichever of their encodings is done first', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(aPiece, { minLength: 1, maxLength: 5 }),
      fc.scheduler(),
      fc.scheduler(),
      async (pieces, one, other) => {
        const [first = [], second = []] = [await settled(pieces, one), await settled(pieces, other)];
        expect(second).toEqual(first);
        const [quality = 0] = first[0] ?? [];
        // One quality for all, taken once; it fits in all of them unless nothing does.
        expect(first).toEqual(pieces.map(() => [quality]));
        const at = qualities.indexOf(quality);
        if (at > 0) expect(pieces.every(({ fits }) => fits[at])).toBe(true);
        // Where every quality fits, the level holds in every piece, unless there is none at which it does.
        if (pieces.every(({ fits }) => fits.every(Boolean)) && quality < highest) {
          expect(pieces.every(({ holds }) => holds[at])).toBe(true);
        }
      },
    ),
  );
});

test('a piece by itself takes what it needs, as good as fits where that is too heavy, and the lowest where nothing fits', async () => {
  const quality = async (holds: boolean[], fits: boolean[]) => {
    let taken = 0;
    const needed = async () => qualities.find((_, at) => holds[at]) ?? null;
    const piece = {
      needed,
      lightest: needed,
      fitting: async (_: Ladder, most: number) => qualities.findLast((one, at) => one <= most && fits[at]) ?? null,
      take: async (one: number) => {
        taken = one;
      },
    };
    await settleAlone(piece, ladder, highest);
    return taken;
  };
  const [no, yes] = [false, true];
  expect(await quality([no, no, yes, yes, yes], [yes, yes, yes, yes, yes])).toBe(30);
  expect(await quality([no, no, yes, yes, yes], [yes, yes, no, no, no])).toBe(20);
  expect(await quality([no, no, no, no, no], [yes, yes, yes, no, no])).toBe(30);
  expect(await quality([no, no, yes, yes, yes], [no, no, no, no, no])).toBe(10);
});
