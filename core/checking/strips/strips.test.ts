import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainTreatment } from '../../finishing/index.ts';
import type { FrameChange, FrameSettings, KeepMark, ManifestFile, Window } from '../../model/index.ts';
import { byHand, sampleMark, samplePlace } from '../../testing/index.ts';
import { frameFindings as findingsOf, seamCautions } from '../index.ts';

type PlainFrame = Omit<Parameters<typeof findingsOf>[0], 'treatment'>;
const frameFindings = (frame: PlainFrame, window?: Window) =>
  findingsOf({ ...frame, treatment: plainTreatment }, window);

const place = samplePlace({
  name: 'Swipe panels',
  width: 1080,
  height: 1350,
  group: { kind: 'panels', min: 2, max: 10 },
});
const panorama = { width: 12_000, height: 3000, hasAlpha: false, trim: null, marks: [] };
const kite = (left: number, width = 300) => sampleMark({ name: 'The red kite', left, top: 1000, width, height: 400 });
const five = { grid: { columns: 5, rows: 1 } };
const middle = { centreX: 6000, centreY: 1500, span: 12_000 };

test('a seam through a mark is told with its depth; composing again or other panels free it', () => {
  const original = { ...panorama, marks: [kite(4700)] };
  const moved = byHand(middle, five);
  const find = (settings: typeof moved) =>
    frameFindings({ original, place, settings, weight: null }).find((one) => one.kind === 'seam through mark');
  // The seam lies at 4800, a hundred pixels inside, which are 45 of the file's.
  expect(find(moved)).toMatchObject({
    text: 'A seam runs 45 px deep through The red kite.',
    fix: { label: 'Compose again', change: { composed: true } },
  });
  expect(find({ ...moved, ...find(moved)?.fix?.change })).toBeUndefined();

  // Wider than any panel: there is nothing that would help.
  const wide = { ...panorama, marks: [kite(500, 5200)] };
  const stuck = frameFindings({ original: wide, place, settings: { ...moved, composed: true }, weight: null });
  expect(stuck).toMatchObject([{ kind: 'seam through mark' }]);
  expect(stuck[0]?.fix).toBeUndefined();
});

test('another number of panels is only offered where it brings fewer seams into marks and loses none', () => {
  const lefts = fc.array(fc.integer({ min: 0, max: 11_000 }), { minLength: 2, maxLength: 5 });
  fc.assert(
    fc.property(lefts, fc.integer({ min: 2, max: 10 }), fc.integer({ min: 300, max: 1000 }), (all, columns, width) => {
      const marks = [...new Set(all)].map((left, index) => ({
        ...kite(left, width),
        id: `00000000-0000-4000-8000-00000000000${index}`,
      }));
      const original = { ...panorama, marks };
      const settings = { ...byHand(middle, { grid: { columns, rows: 1 } }), composed: true };
      const after = (change: FrameChange = {}) => {
        const found = frameFindings({ original, place, settings: { ...settings, ...change }, weight: null });
        const loses = found.some((one) => one.kind === 'mark cut');
        const seams = found.filter((one) => one.kind === 'seam through mark');
        return { seams, worth: loses ? Number.POSITIVE_INFINITY : seams.length };
      };
      const { seams } = after();
      if (seams.length === 0) return;
      const change = (panels: number) => ({ composed: true, grid: { columns: panels, rows: 1 } });
      const nearest = [1, 2, 3]
        .flatMap((by) => [columns - by, columns + by])
        .filter((panels) => panels >= 2 && panels <= 10)
        .find((panels) => after(change(panels)).worth < seams.length);
      const fix = seams[0]?.fix;
      if (nearest) expect(fix).toEqual({ label: `Make it ${nearest} panels`, change: change(nearest) });
      else if (fix) expect(after(fix.change).worth).toBeLessThan(seams.length);
    }),
  );
});

test('seams are told of marks that must be in, and other panels are only offered where there are panels', () => {
  const told = (mark: KeepMark, at = place, values = {}) =>
    frameFindings({
      original: { ...panorama, marks: [mark] },
      place: at,
      settings: { ...byHand(middle, { ...five, ...values }), composed: true },
      weight: null,
    });
  expect(told({ ...kite(4650, 2500), priority: 'should' })).toEqual([]);
  const block = samplePlace({
    width: 1080,
    height: 1350,
    group: { kind: 'block', columns: 2, rows: 2, gap: 0, postingOrder: [0, 1, 2, 3] },
  });
  const [cut] = told(kite(5000, 2000), block, { grid: { columns: 2, rows: 2 } });
  expect(cut?.kind).toBe('seam through mark');
  expect(cut?.fix).toBeUndefined();
});

test('a tall picture is no strip, and its fix makes one that shows all of it', () => {
  const tall = { ...panorama, width: 3000, height: 5000 };
  const settings = byHand({ centreX: 1500, centreY: 2500, span: 3000 }, { grid: { columns: 2, rows: 1 } });
  const [blocker] = frameFindings({ original: tall, place, settings, weight: null });
  expect(blocker).toMatchObject({ kind: 'too tall for a strip', level: 'blocker' });
  expect(blocker?.text).toContain('taller than it is wide');
  const fixed = { ...settings, ...blocker?.fix?.change };
  expect(frameFindings({ original: tall, place, settings: fixed, weight: null })).toEqual([]);
  expect(blocker?.fix?.change.composed).toBe(true);
  const told = (height: number, at = place) =>
    frameFindings({ original: { ...tall, height }, place: at, settings, weight: null }).map(({ kind }) => kind);
  expect(told(3000)).not.toContain('too tall for a strip');
  const pair = samplePlace({
    width: 1080,
    height: 1350,
    group: { kind: 'block', columns: 2, rows: 1, gap: 0, postingOrder: [0, 1] },
  });
  expect(told(5000, pair)).not.toContain('too tall for a strip');
});

test('a seam is told of where cutting made its step larger by more than can be overlooked', () => {
  const line = (file: string, index: number, step: number) =>
    ({
      file,
      planHash: 'x',
      piece: { index, number: index + 1, of: 2, column: index + 1, row: 1, columns: 2, rows: 1 },
      seams: index === 0 ? [{ next: 1, step, undivided: 2 }] : [],
    }) as unknown as ManifestFile;
  expect(seamCautions([line('a.jpg', 0, 4.9), line('b.jpg', 1, 0)])).toEqual([]);
  expect(seamCautions([line('a.jpg', 0, 5), line('b.jpg', 1, 0)])).toEqual([]);
  const other = { ...line('other.jpg', 1, 0), planHash: 'y' };
  const [caution] = seamCautions([other, line('a.jpg', 0, 5.2), line('b.jpg', 1, 0)]);
  expect(caution).toContain(
    'between a.jpg and b.jpg could be seen: a step of 5.2 levels, 2.0 in the undivided picture',
  );
  expect(seamCautions([line('a.jpg', 0, 5.2), other])[0]).toMatch(/^The seam between a\.jpg could be seen/);
});

test('what covers a place covers each of its pieces; a ring and a cut-out are for whole pictures', () => {
  const badge = { left: 900, top: 1200, width: 180, height: 150, shape: 'rectangle' as const, reason: 'counter' };
  const covered = { ...place, covered: [badge], shape: 'circle' as const };
  // The second panel's corner: 4800 - 400 to 4800 - 40 of the original.
  const original = { ...panorama, marks: [{ ...kite(4420, 200), top: 2700, height: 200 }] };
  const ring = { width: 40, colour: '#1f6f66', side: 'outside' as const };
  const settings = byHand(middle, { ...five, ring, cutOut: true });
  const found = frameFindings({ original, place: covered, settings, weight: null });
  expect(found.map((one) => one.kind)).toEqual(['mark covered']);
  expect(found[0]?.text).toBe('The red kite lies under counter.');
});

test('a strip without the pixels is kept from delivery, with what would do; so is any frame enlarged more than eight times', () => {
  const find = (width: number, height: number, columns: number, values: object = {}, at = place) =>
    frameFindings({
      original: { ...panorama, width, height },
      place: at,
      settings: {
        ...byHand({ centreX: width / 2, centreY: height / 2, span: 1e6 }, { grid: { columns, rows: 1 }, ...values }),
        composed: true,
      },
      weight: null,
    }).filter((one) => one.level === 'blocker');
  const [tiny] = find(40, 20, 10);
  expect(tiny).toMatchObject({ kind: 'too few pixels for a strip', allowed: 3 });
  expect(tiny?.text).toMatch(/40 × 20 px: a strip of 10 enlarges it 270.0 times\. Post it as one picture/);
  expect(tiny?.fix).toBeUndefined();
  // Ten panels of a picture this wide are cut from a narrow band of it; four are not.
  const [wide] = find(1800, 900, 10);
  expect(wide).toMatchObject({
    kind: 'too few pixels for a strip',
    fix: { label: 'Make it 5 panels', change: { grid: { columns: 5, rows: 1 } } },
  });
  expect(find(1800, 900, 5)).toEqual([]);
  expect(wide?.fix?.change.composed).toBe(true);
  // A closing panel is one of the most that a place takes; a backing and a block make do with what there is.
  const six = { ...place, group: { kind: 'panels', min: 2, max: 6 } as const };
  const offered = (closing: FrameSettings['closing']) =>
    find(2200, 1100, 7, { closing }, six).find(({ kind }) => kind.startsWith('too few'))?.fix?.label;
  expect([offered(null), offered({ kind: 'echo' })]).toEqual(['Make it 6 panels', 'Make it 5 panels']);
  expect(find(1800, 900, 10, { backing: { kind: 'echo' } })).toEqual([]);

  const single = samplePlace({ width: 900, height: 900 });
  const enlarged = (span: number) =>
    frameFindings({
      original: { ...panorama, width: 2000, height: 2000 },
      place: single,
      settings: byHand({ centreX: 1000, centreY: 1000, span }),
      weight: null,
    })[0];
  expect(enlarged(120)).toMatchObject({ kind: 'enlarged', level: 'caution' });
  expect(enlarged(110)).toMatchObject({ kind: 'enlarged', level: 'blocker', allowed: 8 });
});
