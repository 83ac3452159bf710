import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainTreatment } from '../finishing/index.ts';
import { largestWindow, wholeOf } from '../geometry/index.ts';
import {
  type EncodedFile,
  type FrameSettings,
  type ImageFormat,
  type KeepMark,
  type Mark,
  type Place,
  plainSettings,
  type Window,
} from '../model/index.ts';
import { sampleMark, samplePlace, sampleWeight } from '../testing/index.ts';
import { fileReasons, frameFindings as findingsOf, stretchWords } from './index.ts';

type PlainFrame = Omit<Parameters<typeof findingsOf>[0], 'treatment'>;
const frameFindings = (frame: PlainFrame, window?: Window) =>
  findingsOf({ ...frame, treatment: plainTreatment }, window);

const place = samplePlace({
  name: 'Clip cover',
  purpose: 'cover',
  width: 1080,
  height: 1920,
  formats: ['jpeg', 'webp'],
  limit: { bytes: 3_145_728, unit: 'MiB' },
});
const original = { width: 3000, height: 4000, hasAlpha: false, trim: null, marks: [] };
const settings = {
  ...plainSettings,
  window: largestWindow(wholeOf(original), { width: 1080, height: 1920 }),
  composed: false,
  format: 'jpeg' as const,
};
const weight = sampleWeight();
const kinds = (frame: PlainFrame) => frameFindings(frame).map((one) => `${one.level}: ${one.kind}`);

test('a good frame has no findings, measured or not', () => {
  expect(frameFindings({ original, place, settings, weight })).toEqual([]);
  expect(frameFindings({ original, place, settings, weight: null })).toEqual([]);
});

test('an enlarged frame is loosened to 1x by its fix where the original reaches', () => {
  const tight = { ...settings, window: { ...settings.window, span: 500 } };
  const [finding] = frameFindings({ original, place, settings: tight, weight });
  expect(finding).toMatchObject({ kind: 'enlarged', level: 'caution', measured: 2.16, allowed: 1 });
  const fixed = { ...tight, ...finding?.fix?.change };
  expect(frameFindings({ original, place, settings: fixed, weight })).toEqual([]);

  const small = { ...original, width: 500, height: 600 };
  const largest = { ...settings, window: largestWindow(wholeOf(small), { width: 1080, height: 1920 }) };
  const [stuck] = frameFindings({ original: small, place, settings: largest, weight });
  expect(stuck?.kind).toBe('enlarged');
  expect(stuck?.fix).toBeUndefined();
});

test('how much a frame is enlarged is told from what is seen on, in words that grow with it', () => {
  const square = samplePlace({ width: 1000, height: 1000 });
  const at = (span: number, values = {}) =>
    frameFindings({
      original,
      place: square,
      settings: { ...settings, ...values, window: { ...settings.window, span } },
      weight,
    }).filter(({ kind }) => kind === 'enlarged');
  expect(at(1000 / 1.1)).toEqual([]);
  expect(at(900)).toMatchObject([
    { level: 'caution', measured: 1.111, text: expect.stringContaining('asks for more') },
  ]);
  expect(at(1000 / 1.5)[0]?.text).toContain('asks for more pixels');
  expect(at(660)[0]?.text).toContain('it will look soft');
  expect(at(125)).toMatchObject([{ level: 'caution', allowed: 1 }]);
  expect(at(124)).toMatchObject([{ level: 'blocker', allowed: 8 }]);
  // Drawn at half its width it is enlarged twice as much upwards; drawn wider, as much as sideways.
  expect(at(1000, { stretch: 0.5 })).toMatchObject([{ measured: 2, fix: { label: 'Loosen to 1×' } }]);
  expect(at(2000, { stretch: 0.5 })).toEqual([]);
  expect(at(800, { stretch: 2 })).toMatchObject([{ measured: 1.25 }]);
});

test('what a place does not take is told with what it takes', () => {
  const found = (formats: ImageFormat[], format: ImageFormat, heavy = false) =>
    frameFindings({
      original,
      place: { ...place, formats },
      settings: { ...settings, format },
      weight: heavy ? sampleWeight({ fits: false }) : weight,
    });
  expect(found(['webp', 'png'], 'jpeg')).toMatchObject([{ allowed: 'WebP, PNG', fix: { change: { format: 'webp' } } }]);
  expect(found(['webp', 'jpeg'], 'png')).toMatchObject([{ fix: { change: { format: 'jpeg' } } }]);
  expect(found(['jpeg', 'png'], 'png', true)[0]?.fix?.change).toEqual({ format: 'jpeg' });
  expect(found(['png'], 'png', true)[0]?.fix).toBeUndefined();
  expect(found(['jpeg'], 'jpeg', true)[0]?.fix).toBeUndefined();
  const tall = frameFindings({
    original,
    place,
    settings: { ...settings, dimensions: { width: 600, height: 501 } },
    weight,
  });
  expect(tall).toMatchObject([{ kind: 'not taken', level: 'blocker' }]);
});

test('weight, format and transparency are told with numbers, blockers first', () => {
  const heavy = sampleWeight({ format: 'png', quality: null, bytes: 3_250_586, fits: false });
  const png = { ...settings, format: 'png' as const };
  const found = frameFindings({ original, place, settings: png, weight: heavy });
  expect(found.map((one) => one.kind)).toEqual(['format', 'too heavy']);
  expect(found[0]?.text).toContain('It takes JPEG, WebP');
  expect(found[1]).toMatchObject({ measured: '3.10 MiB', allowed: '3 MiB', fix: { change: { format: 'jpeg' } } });
  const seen = sampleWeight({ quality: 41 }, { overall: 94.1 });
  expect(kinds({ original, place, settings, weight: seen })).toEqual(['caution: low quality']);
  const face = sampleWeight({ quality: 41 }, { overall: 97.5, regions: [93.2] });
  expect(kinds({ original, place, settings, weight: face })).toEqual(['caution: low quality']);
  const spot = { left: 40, top: 8, width: 64, height: 64, similarity: 80.5 };
  expect(kinds({ original, place, settings, weight: sampleWeight({}, { worst: spot }) })).toEqual([
    'caution: ruined spot',
  ]);
  expect(kinds({ original, place, settings, weight: sampleWeight({}, { blockError: 18 }) })).toEqual([
    'caution: ruined spot',
  ]);
  expect(kinds({ original: { ...original, hasAlpha: true }, place, settings, weight })).toEqual([
    'caution: transparency',
  ]);
});

test('covered and hidden parts count only where they reach the middle of the frame', () => {
  const bottom = (top: number) => ({
    left: 0,
    top,
    width: 1080,
    height: 1920 - top,
    shape: 'rectangle' as const,
    reason: 'controls',
  });
  expect(kinds({ original, place: { ...place, covered: [bottom(1600)] }, settings, weight })).toEqual([]);
  const [finding] = frameFindings({ original, place: { ...place, covered: [bottom(1280)] }, settings, weight });
  expect(finding).toMatchObject({ kind: 'covered middle', measured: '25 %' });
  const shownPart = { left: 0, top: 320, width: 1080, height: 640, shape: 'rectangle' as const, reason: 'lists' };
  expect(frameFindings({ original, place: { ...place, shownPart }, settings, weight })[0]).toMatchObject({
    kind: 'hidden middle',
    measured: '50 %',
  });
});

test('the share of the middle that is covered or hidden is what counting pixels finds', () => {
  const inMiddle = (value: number, side: number) => value >= side / 6 && value < (side * 5) / 6;
  const part = fc.record({
    left: fc.integer({ min: 0, max: 59 }),
    top: fc.integer({ min: 0, max: 59 }),
    right: fc.integer({ min: 1, max: 60 }),
    bottom: fc.integer({ min: 1, max: 60 }),
  });
  fc.assert(
    fc.property(part, ({ left, top, right, bottom }) => {
      fc.pre(right > left && bottom > top);
      let count = 0;
      for (let y = top; y < bottom; y += 1)
        for (let x = left; x < right; x += 1) if (inMiddle(x, 60) && inMiddle(y, 60)) count += 1;
      const rect = { left: left * 10, top: top * 10, width: (right - left) * 10, height: (bottom - top) * 10 };
      const area = { ...rect, shape: 'rectangle' as const, reason: 'controls' };
      const square = samplePlace({ width: 600, height: 600 });
      const told = (values: Partial<Place>) =>
        frameFindings({ original, place: { ...square, ...values }, settings, weight })[0]?.measured;
      const percent = (share: number) => `${Math.max(1, Math.round(share * 100))} %`;
      expect(told({ covered: [area] })).toBe(count > 0 ? percent(count / 1600) : undefined);
      expect(told({ shownPart: area })).toBe(count < 1592 ? percent(1 - count / 1600) : undefined);
    }),
  );
});

test('a finished file is refused for its dimensions, its format and its bytes, each in words', () => {
  const demand = {
    dimensions: { width: 800, height: 800 },
    format: 'jpeg' as const,
    limit: place.limit,
    budgetBytes: 3_051_356,
    least: { overall: 92, worst: 72, flatAreaError: 9, blockError: 30 },
  };
  const { similarity } = sampleWeight().files[0] as EncodedFile;
  const ruined = { ...similarity, overall: 99, regions: [91.5] };
  expect(fileReasons({ width: 800, height: 800, format: 'jpeg', bytes: 3_051_356, similarity }, demand)).toEqual([]);
  const reasons = fileReasons({ width: 800, height: 796, format: 'png', bytes: 3_051_357, similarity: ruined }, demand);
  expect(reasons).toHaveLength(4);
  const wide = { width: 796, height: 800, format: 'jpeg' as const, bytes: 1, similarity };
  expect(fileReasons(wide, demand)).toMatchObject([expect.stringContaining('796 × 800')]);
  expect(fileReasons({ ...wide, width: 800, similarity: { ...similarity, overall: 92 } }, demand)).toEqual([]);
  expect(reasons[0]).toContain('800 × 796');
  expect(reasons[2]).toContain('3,051,357');
});

test('a mark that a moved frame cuts is told with its pixels; composing again is the fix where it helps', () => {
  const mark = sampleMark({ left: 100, top: 1000, width: 600, height: 600 });
  const marked = { ...original, marks: [mark] };
  const moved = { ...settings, window: { ...settings.window, centreX: 1800 } };
  const [finding] = frameFindings({ original: marked, place, settings: moved, weight });
  // The window is 2250 wide and begins at 675; the mark begins at 100: 575 of its pixels are out, times 1080 / 2250.
  expect(finding).toMatchObject({ kind: 'mark cut', level: 'caution', measured: 276, fix: { label: 'Compose again' } });
  expect(finding?.text).toBe('The kite is cut: the frame is 276 px too narrow for it.');
  const fixed = { ...moved, ...finding?.fix?.change };
  expect(frameFindings({ original: marked, place, settings: fixed, weight })).toEqual([]);

  const wide = { ...original, marks: [{ ...mark, left: 10, width: 2980 }] };
  const composed = { ...settings, composed: true };
  const [cut] = frameFindings({ original: wide, place, settings: composed, weight });
  expect(cut?.fix?.label).toBe('Show all of it on an echo');
  expect(frameFindings({ original: wide, place, settings: { ...composed, ...cut?.fix?.change }, weight })).toEqual([]);
});

test('where nothing else brings a mark back, the frame is shifted until it stands at the edge', () => {
  const square = samplePlace({ width: 600, height: 600 });
  // The composed frame shows the first mark; the second, at the other end, is out of it as it is out of the moved one.
  const find = (across: boolean, first: number, second: number, moved: number) => {
    const along = (at: number) => (across ? { left: at, top: 300 } : { left: 300, top: at });
    const marks = [must(along(first)), must({ ...along(second), id: '00000000-0000-4000-8000-000000000002' })];
    const long = { ...original, ...(across ? { width: 3000, height: 1000 } : { width: 1000, height: 3000 }), marks };
    const centre = across ? { centreX: moved, centreY: 500 } : { centreX: 500, centreY: moved };
    const window = { ...settings.window, ...centre, span: 1000 };
    const found = frameFindings({ original: long, place: square, settings: { ...settings, window }, weight });
    expect(found.map(({ fix }) => fix?.label)).toEqual(['Compose again', 'Shift it']);
    return found[1]?.fix?.change.window;
  };
  expect(find(true, 100, 2550, 800)).toMatchObject({ centreX: 2450, centreY: 500, span: 1000 });
  expect(find(true, 2500, 50, 2200)).toMatchObject({ centreX: 550, centreY: 500, span: 1000 });
  expect(find(false, 100, 2550, 800)).toMatchObject({ centreX: 500, centreY: 2450, span: 1000 });
  expect(find(false, 2500, 50, 2200)).toMatchObject({ centreX: 500, centreY: 550, span: 1000 });
});

const must = (values: Partial<KeepMark>) =>
  sampleMark({ name: 'The face', kind: 'face', left: 1300, top: 1300, width: 400, height: 400, ...values });

test('a mark under a covered area is shifted out of it, at the same scale', () => {
  const area = { left: 0, top: 0, width: 1080, height: 600, shape: 'rectangle' as const, reason: 'controls' };
  const covering = { ...place, covered: [area] };
  const marked = { ...original, marks: [must({ top: 1400 })] };
  const tight = { ...settings, window: { ...settings.window, span: 1500, centreY: 2400 } };
  const found = frameFindings({ original: marked, place: covering, settings: tight, weight });
  const covered = found.find((one) => one.kind === 'mark covered');
  expect(covered).toMatchObject({ fix: { label: 'Shift it', change: { composed: false, window: { span: 1500 } } } });
  const fixed = { ...tight, ...covered?.fix?.change };
  expect(kinds({ original: marked, place: covering, settings: fixed, weight })).not.toContain('caution: mark covered');
});

test('a stretch is told until it is undone; a ring over a mark is laid outside', () => {
  const stretched = { ...settings, stretch: 1.78 };
  const [stretch] = frameFindings({ original, place, settings: stretched, weight });
  expect(stretch).toMatchObject({ kind: 'stretched', text: expect.stringContaining('78 % wider') });
  expect(frameFindings({ original, place, settings: { ...stretched, ...stretch?.fix?.change }, weight })).toEqual([]);

  const round = { ...place, width: 400, height: 400, shape: 'circle' as const };
  const ring = { width: 40, colour: '#1f6f66', side: 'inside' as const };
  const window = { ...settings.window, centreX: 1500, centreY: 1500, span: 600 };
  const ringed = { ...settings, window, ring };
  const marked = { original: { ...original, marks: [must({ width: 400, height: 400 })] }, place: round, weight };
  const cut = frameFindings({ ...marked, settings: ringed }).find((one) => one.kind === 'mark cut');
  expect(cut).toMatchObject({ text: 'The face lies under the ring.', fix: { label: 'Lay the ring outside' } });
  expect(kinds({ ...marked, settings: { ...ringed, ...cut?.fix?.change } })).not.toContain('caution: mark cut');
});

test('a cut out frame needs a format with transparency, or a colour', () => {
  const round = { ...place, formats: ['jpeg' as const, 'png' as const], shape: 'circle' as const };
  const cutOut = { ...settings, cutOut: true };
  const of = (change: object) => kinds({ original, place: round, settings: { ...cutOut, ...change }, weight });
  expect(of({})).toEqual(['blocker: transparency']);
  expect(of({ format: 'png' })).toEqual([]);
  expect(of({ flatten: '#ffffff' })).toEqual([]);
  expect(kinds({ original, place, settings: cutOut, weight })).toEqual([]);
});

test('detail that is lost where the frame is shown names its mark; tightening makes the mark large', () => {
  const face = must({});
  const at = { ...place, width: 400, height: 400, shownWidths: [96, 40] };
  const frame = {
    original: { ...original, marks: [face] },
    place: at,
    settings: { ...settings, window: { ...settings.window, centreX: 1500, centreY: 1500, span: 2400 } },
    weight,
  };
  const detail = [96, 40].map((shownWidth) => ({ markId: face.id, shownWidth, kept: shownWidth / 240 - 0.01 }));
  const [lost, ...others] = frameFindings({ ...frame, detail });
  expect(others).toEqual([]);
  expect(lost).toMatchObject({ kind: 'detail lost', measured: '39 %', allowed: '40 %' });
  expect(lost?.text).toBe(
    'Shown 96 px wide, The face keeps 39 % of its detail (and less at 40 px): tighten the frame on it.',
  );
  expect(lost?.fix?.change.window?.span).toBeCloseTo(400 / 0.66, 3);
  expect(frameFindings({ ...frame, detail: detail.map((one) => ({ ...one, kept: 0.4 })) })).toEqual([]);

  const told = (marks: Mark[], kept: number, values: Partial<Window> = {}, widths = [96]) =>
    frameFindings({
      ...frame,
      original: { ...original, marks },
      settings: { ...frame.settings, window: { ...frame.settings.window, ...values } },
      detail: widths.map((shownWidth) => ({ markId: face.id, shownWidth, kept })),
    });
  // Words are lost sooner; what a place never shows so small, and what belongs to another mark, is not told.
  const words = must({ kind: 'text' });
  expect(told([words], 0.79)).toMatchObject([{ measured: '79 %', allowed: '80 %' }]);
  expect(told([words], 0.79)[0]?.text).not.toContain('and less');
  expect([told([words], 0.8), told([face], 0.79), told([face], 0.1, {}, [50])]).toEqual([[], [], []]);
  expect(told([{ ...face, id: `${face.id.slice(0, -1)}9` }], 0.1)).toEqual([]);
  // A mark that is large already, or whose tightening cuts another, is not tightened.
  expect(told([face], 0.1, { span: 680 })[0]?.fix?.change.window?.span).toBeCloseTo(400 / 0.66, 3);
  expect(told([face], 0.1, { span: 670 })[0]?.fix).toBeUndefined();
  const tall = must({ top: 1100, height: 800 });
  expect(told([tall], 0.1)[0]?.fix?.change.window?.span).toBeCloseTo(800 / 0.66, 3);
  const beside = { ...face, id: `${face.id.slice(0, -1)}9`, left: 500 };
  expect(told([face, beside], 0.1)[0]?.fix).toBeUndefined();
  expect(told([face, { ...beside, priority: 'should' }], 0.1)[0]?.fix).toBeDefined();
});

test('a circle and a frame are each called so where they need a colour under them; any transparency tells', () => {
  const found = (shape: Place['shape'], formats: ImageFormat[], change: Partial<FrameSettings>) =>
    frameFindings({ original, place: { ...place, shape, formats }, settings: { ...settings, ...change }, weight });
  expect(found('circle', ['jpeg'], { cutOut: true })[0]?.text).toMatch(
    /this circle is to be cut out\. Choose the colour/,
  );
  const [rounded] = found('rounded', ['jpeg', 'webp', 'png'], { cutOut: true });
  expect(rounded).toMatchObject({ allowed: 'WebP, PNG', text: expect.stringContaining('this frame is to be cut out') });
  expect(found('rectangle', ['jpeg'], { backing: { kind: 'transparent' } })).toMatchObject([{ level: 'caution' }]);
});

test('a stretch is said in whole percent of the width', () => {
  expect([1.78, 0.8, 1.001].map(stretchWords)).toEqual(['78 % wider', '20 % narrower', '1 % wider']);
});
