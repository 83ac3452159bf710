import fc from 'fast-check';
import { expect, test } from 'vitest';
import { balancedBreaks, type Piece } from './balanced.ts';
import { breakOpportunities } from './opportunities.ts';

const piecesBroken = (text: string) => {
  let from = 0;
  return breakOpportunities(text).map((to) => {
    const piece = text.slice(from, to);
    from = to;
    return piece;
  });
};

test('lines break where UAX #14 allows it, and Thai between its words', () => {
  expect(piecesBroken('4 October, kite-flying (9 a.m.)')).toEqual([
    '4 ',
    'October, ',
    'kite-',
    'flying ',
    '(9 ',
    'a.m.)',
  ]);
  expect(piecesBroken('砂丘の「凧」')).toEqual(['砂', '丘', 'の', '「凧」']);
  expect(piecesBroken('ฤดูใบไม้ร่วง')).toEqual(['ฤดู', 'ใบไม้', 'ร่วง']);
  expect(piecesBroken('no\u00a0break')).toEqual(['no\u00a0break']);
});

/** All ways to break, by trying. */
function* waysToBreak(count: number, lines: number): Generator<number[]> {
  if (lines === 1) yield [count];
  else
    for (let end = lines - 1; end < count; end += 1)
      for (const rest of waysToBreak(end, lines - 1)) yield [...rest, count];
}

function raggedness(pieces: readonly Piece[], ends: readonly number[]): number {
  const whole = pieces.reduce((sum, { width, space }) => sum + width + space, 0) - (pieces.at(-1)?.space ?? 0);
  const mean = whole / ends.length;
  let from = 0;
  return ends.reduce((sum, to) => {
    const line = pieces.slice(from, to);
    const width = line.reduce((all, piece) => all + piece.width + piece.space, 0) - (line.at(-1)?.space ?? 0);
    const isLost = from > 0 && to === pieces.length && line.length === 1 && width < 0.4 * mean;
    from = to;
    return sum + ((width - mean) / mean) ** 2 + (isLost ? 1 : 0);
  }, 0);
}

test('no other way to break is more even', () => {
  const piece = fc.record({ width: fc.double({ min: 0.2, max: 9, noNaN: true }), space: fc.constant(0.25) });
  fc.assert(
    fc.property(fc.array(piece, { minLength: 1, maxLength: 9 }), fc.nat(8), (pieces, more) => {
      const lines = Math.min(pieces.length, 1 + more);
      const ways = balancedBreaks(pieces, 1 + more);
      expect(ways.map(({ length }) => length)).toEqual(Array.from({ length: lines }, (_, at) => at + 1));
      const found = ways[lines - 1] ?? [];
      const best = Math.min(...[...waysToBreak(pieces.length, lines)].map((ends) => raggedness(pieces, ends)));
      expect(raggedness(pieces, found)).toBeCloseTo(best, 9);
    }),
  );
});
