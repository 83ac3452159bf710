import * as shaper from 'harfbuzzjs';
import { describe, expect, test } from 'vitest';
import { boldFile, testBook, testStyle } from '../testFonts.ts';
import { pathData } from '../type/outline.ts';
import { setWords } from './setWords.ts';

const book = testBook([
  'sofia-sans',
  'noto-sans',
  'noto-sans-arabic',
  'noto-sans-hebrew',
  'noto-sans-devanagari',
  'noto-sans-thai',
  'noto-sans-jp',
  'noto-sans-kr',
  'noto-sans-sc',
]);

/** The outline that the font's own library draws for a text of one font and direction, on one line, in em. */
function drawnByLibrary(family: string, text: string): number[] {
  const face = new shaper.Face(new shaper.Blob(boldFile(family)));
  const font = new shaper.Font(face);
  const buffer = new shaper.Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  shaper.shape(font, buffer);
  let x = 0;
  const points: number[] = [];
  for (const { codepoint, xAdvance = 0, xOffset = 0, yOffset = 0 } of buffer.getGlyphInfosAndPositions()) {
    for (const { values } of font.glyphToJson(codepoint)) {
      values.forEach((value, at) => {
        points.push((at % 2 ? -(value + yOffset) : value + xOffset + x) / face.upem);
      });
    }
    x += xAdvance;
  }
  return points;
}

/** Points moved so that the first lies at 0, 0. */
const fromFirst = (points: readonly number[]) =>
  points.map((value, at) => Math.round((value - (points[at % 2] as number)) * 1e6) / 1e6);

describe('setting words', () => {
  test.each([
    ['sofia-sans', 'Große Ærøskøbing Žižkov', 'sofia-sans'],
    ['sofia-sans', 'Φεστιβάλ χαρταετών', 'sofia-sans'],
    ['sofia-sans', 'Фестиваль воздушных змеев', 'sofia-sans'],
    ['sofia-sans', 'مهرجان الطائرات الورقية', 'noto-sans-arabic'],
    ['sofia-sans', 'חג העפיפונים', 'noto-sans-hebrew'],
    ['noto-sans-devanagari', 'शरद पतंग क्षत्रिय', 'noto-sans-devanagari'],
    ['sofia-sans', 'เทศกาลว่าวฤดูใบไม้ร่วง', 'noto-sans-thai'],
    ['sofia-sans', '砂丘の凧まつり', 'noto-sans-jp'],
    ['sofia-sans', '사구의연축제', 'noto-sans-kr'],
    ['sofia-sans', '风筝节在沙丘上', 'noto-sans-sc'],
  ])('in %s, “%s” is drawn as the library draws it in %s', (family, text, drawnIn) => {
    const { ways, fallbacks, missing } = setWords(text, testStyle({ family }), book);
    expect(missing).toEqual([]);
    expect(fallbacks).toEqual(family === drawnIn ? [] : [drawnIn]);
    const drawn = (ways[0]?.outline('start') ?? []).flatMap(({ values }) => values);
    expect(fromFirst(drawn)).toEqual(fromFirst(drawnByLibrary(drawnIn, text)));
  });

  test('its box holds the outline exactly, in any number of lines and any alignment', () => {
    const { ways } = setWords('Autumn kite festival on the dunes', testStyle(), book);
    expect(ways.map(({ lines }) => lines)).toEqual([1, 2, 3, 4, 5, 6]);
    for (const way of ways) {
      for (const alignment of ['start', 'middle', 'end'] as const) {
        const ends = way.outline(alignment).map(({ values }) => values.slice(-2));
        const [xs, ys] = [0, 1].map((at) => ends.flatMap((end) => end[at] ?? []));
        expect(Math.min(...(xs as number[]))).toBeCloseTo(0, 2);
        expect(Math.max(...(xs as number[]))).toBeCloseTo(way.width, 2);
        expect(Math.min(...(ys as number[]))).toBeCloseTo(0, 2);
        expect(Math.max(...(ys as number[]))).toBeCloseTo(way.height, 2);
      }
    }
  });

  test('numbers and Latin words in Arabic stand where they are read, and its lines begin at the right', () => {
    const text = 'مهرجان 2026 على الكثبان';
    const [one, two] = setWords(text, testStyle(), book).ways;
    expect(one?.rightToLeft).toBe(true);
    // The digits lie between the words, so the line is as wide as its parts, and 2026 itself is drawn as in Latin text.
    const [digits] = setWords('2026', testStyle(), book).ways;
    const drawn = pathData(digits?.outline('start') ?? [], 1000, 0, 0).length;
    expect(pathData(one?.outline('start') ?? [], 1000, 0, 0).length).toBeGreaterThan(drawn);
    const lines = two?.outline('start') ?? [];
    expect(Math.max(...lines.flatMap(({ values }) => values.filter((_, at) => at % 2 === 0)))).toBeCloseTo(
      two?.width ?? 0,
      2,
    );
  });

  test('capitals, spacing and a soft hyphen at the end of a line', () => {
    const plain = setWords('dunes', testStyle(), book).ways[0];
    const capitals = setWords('dunes', testStyle({ case: 'capitals' }), book).ways[0];
    const spaced = setWords('dunes', testStyle({ letterSpacing: 0.1 }), book).ways[0];
    expect(capitals?.width).toBe(setWords('DUNES', testStyle(), book).ways[0]?.width);
    expect((spaced?.width ?? 0) - (plain?.width ?? 0)).toBeCloseTo(0.4, 6);
    const [, broken] = setWords('kite\u00adflyers', testStyle(), book).ways;
    const hyphened = setWords('kite-\nflyers', testStyle(), book).ways[0];
    expect(broken?.width).toBe(hyphened?.width);
  });

  test('what no font has is named, what others have is set in them, and a font that is not there yet is asked for', () => {
    expect(setWords('Kites 🪁', testStyle(), book).missing).toEqual(['🪁']);
    const waiting = testBook(['sofia-sans', 'noto-sans-thai', 'noto-sans'], ['sofia-sans']);
    const { ways, toLoad } = setWords('Kites ว่าว', testStyle(), waiting);
    expect(ways).toEqual([]);
    expect(toLoad.map(({ file }) => file.id)).toEqual(['noto-sans-thai']);
  });
});
