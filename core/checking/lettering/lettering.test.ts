import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainTreatment } from '../../finishing/index.ts';
import { testBook, testWords } from '../../lettering/testFonts.ts';
import {
  type Finding,
  type FrameChange,
  type Hands,
  type Item,
  keepNothing,
  type Legibility,
  noHand,
  plainSettings,
} from '../../model/index.ts';
import { planWithWords } from '../../planning/index.ts';
import { sampleArea, sampleMark, sampleOriginal, samplePlace } from '../../testing/index.ts';
import { legibilityFindings } from './legibilityFindings.ts';
import { letteringFindings } from './letteringFindings.ts';

const book = testBook(['sofia-sans', 'noto-sans']);
const id = (number: number) => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`;
const place = samplePlace({
  width: 1000,
  height: 800,
  shownWidths: [500, 250],
  covered: [sampleArea(800, 0, 200, 120)],
});
const original = {
  ...sampleOriginal({ width: 2000, height: 1600 }),
  marks: [sampleMark({ id: id(8), left: 100, top: 900, width: 400, height: 400 })],
};

/** A frame with items at which hands have been. */
function checked(hands: Hands, items: Item[], legibility: Legibility[] = [], marks = original.marks) {
  const settings = {
    ...plainSettings,
    format: 'jpeg' as const,
    hands,
    window: { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
  };
  const lettering = { items, book, originalId: id(9), placeId: 'made/place', ground: null };
  const framed = { original: { ...original, marks }, place, settings, treatment: plainTreatment, keeping: keepNothing };
  const { lettered } = planWithWords({ ...framed, lettering });
  const toCheck = { lettered, place, settings, legibility };
  return { lettered, findings: [...letteringFindings(toCheck), ...legibilityFindings(toCheck)] };
}
const handsOf = (change: FrameChange | undefined): Hands => (change as { hands: Hands }).hands;
const labels = (findings: Finding[]) => findings.map(({ fix }) => fix?.label);

const title = testWords(1, 'Autumn kites on the dunes', { short: 'Kites', wanted: 0.12 });
const date = testWords(2, '4 October');
const stand = (x: number, y: number, size: number, lines = 1) => ({ ...noHand, stand: { x, y, size, lines } });

test('whatever a hand has done to an item, the fix of each finding takes that finding away and brings no other', () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(share, share, share, fc.integer({ min: 1, max: 4 }), (x, y, size, lines) => {
      const hands = { [title.id]: stand(x, y, 0.01 + size * 0.3, lines) };
      const { findings } = checked(hands, [title, date]);
      for (const { kind, fix } of findings) {
        const after = checked(handsOf(fix?.change), [title, date]).findings;
        const times = (all: Finding[]) => all.filter((one) => one.kind === kind).length;
        expect(times(after), `${kind}: ${fix?.label}`).toBeLessThan(times(findings));
        expect(after.length).toBeLessThan(findings.length + 1);
      }
    }),
    { numRuns: 60 },
  );
});

test('each problem gets the fix that changes least', () => {
  const fixes = (x: number, y: number, size: number, lines = 1) =>
    labels(checked({ [title.id]: stand(x, y, size, lines) }, [title, date]).findings);
  expect(fixes(0.5, 0.5, 0.02)).toEqual(['Enlarge it']);
  expect(fixes(0.99, 0.4, 0.08)).toEqual(['Move it out']);
  expect(fixes(0.5, 0.5, 0.14)).toEqual(['Break it otherwise']);
  expect(fixes(0.5, 0.45, 0.3)).toContain('Use the short version');
  const again = 'Lay it out again';
  expect(fixes(0.5, 0.5, 2)).toEqual([again, again, 'Leave it out here', again]);
});

test('what covers something is moved no further than it takes, and keeps its size and its lines', () => {
  const { findings } = checked({ [date.id]: stand(0.9, 0.1, 0.05) }, [date]);
  expect(labels(findings)).toContain('Move it out');
  const moved = handsOf(findings[0]?.fix?.change)[date.id]?.stand;
  expect(moved).toMatchObject({ size: 0.05, lines: 1 });
  // To the left of what the network covers, or just under it.
  expect(Math.hypot(((moved?.x ?? 0) - 0.9) * 1000, ((moved?.y ?? 0) - 0.1) * 800)).toBeLessThan(150);
});

test('words that cannot be told from their ground at a width are put on a plate; those that can are not mentioned', () => {
  const { lettered } = checked({}, [title, date]);
  const em = lettered?.items[0]?.em ?? 0;
  const found = (contrast: number, busy: number, shownWidth: number) =>
    checked({}, [title, date], [{ itemId: title.id, shownWidth, contrast, busy }]).findings;
  // Large at 500 px, where 3 : 1 is enough, and bold enough for that at 250 px, where an em is at least 18.66 px.
  expect(em / 4).toBeGreaterThan(18.66);
  expect([found(3.1, 0.1, 500), found(3.1, 0.1, 250), found(2, 0.1, 777)].flat()).toEqual([]);
  const [low] = found(2.9, 0.1, 250);
  expect(low).toMatchObject({ kind: 'hard to read', level: 'caution', measured: '2.9 : 1', allowed: '3 : 1' });
  expect(low?.text).toContain('Shown 250 px wide');
  expect(low?.fix?.label).toBe('Put a plate under it');
  const on = checked(handsOf(low?.fix?.change), [title, date]);
  expect(on.lettered?.layers[0]).toMatchObject({ kind: 'outline', colour: '#000000', opacity: 1 });
  expect(on.findings).toEqual([]);
  const [busy] = found(9, 0.6, 500);
  expect(busy?.text).toContain('so uneven');
  // Small words need more.
  const small = testWords(3, 'in the evening', { wanted: 0.04 });
  const least = checked({}, [small], [{ itemId: small.id, shownWidth: 250, contrast: 4, busy: 0 }]).findings[0];
  expect(least?.allowed).toBe('4.5 : 1');
});

test('words that take more than they should of a picture are shortened, else made smaller', () => {
  const long = testWords(1, 'An autumn of kites over the dunes of the salt marsh', { wanted: 0.5 });
  const free = (hands: Hands, item: Item) => checked(hands, [item], [], []);
  const { findings } = free({}, long);
  expect(findings).toMatchObject([{ kind: 'much under words', fix: { label: 'Make it smaller' } }]);
  expect(free(handsOf(findings[0]?.fix?.change), long).findings).toEqual([]);
  const withShort = { ...long, short: 'Kites' };
  expect(labels(free({}, withShort).findings)).toEqual(['Use the short version']);
});

test('what finds no room can be left out of the frame', () => {
  const endless = testWords(1, 'Wind and sand '.repeat(40));
  const { findings } = checked({}, [endless, date]);
  expect(findings).toMatchObject([{ kind: 'words left out', fix: { label: 'Leave it out here' } }]);
  expect(checked(handsOf(findings[0]?.fix?.change), [endless, date]).findings).toEqual([]);
});
