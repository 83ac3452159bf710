import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainTreatment } from '../finishing/index.ts';
import { contentAreaOf, frameWindow, unmetMarks } from '../framing/index.ts';
import { boundsOf, clampWindow, nudge } from '../geometry/index.ts';
import type { FrameChange, Mark } from '../model/index.ts';
import { byHand, sampleArea, sampleMark, sampleOriginal, samplePlace } from '../testing/index.ts';
import { type FrameToCheck, withBorder } from './frameToCheck.ts';
import { frameFindings } from './index.ts';

const share = fc.double({ min: 0, max: 1, noNaN: true });
const part = fc.record({ left: share, top: share, width: share, height: share });
type Part = typeof part extends fc.Arbitrary<infer One> ? One : never;

/** A part of a rectangle at whole pixels, from `least` of its sides on. */
function within(whole: { width: number; height: number }, { left, top, width, height }: Part, least: number) {
  const side = (of: number, value: number) => Math.max(8, Math.round(of * (least + value * (0.5 - least))));
  const [wide, high] = [side(whole.width, width), side(whole.height, height)];
  return {
    left: Math.round(left * (whole.width - wide)),
    top: Math.round(top * (whole.height - high)),
    width: wide,
    height: high,
  };
}

const aMark = fc.record({
  part,
  role: fc.constantFrom('must' as const, 'must' as const, 'should' as const, 'avoid' as const),
});

/** A frame that a hand has moved, with marks, a covered area or a part that is always shown. */
const aFrame = (marks: number) =>
  fc
    .record({
      width: fc.integer({ min: 200, max: 1200 }),
      height: fc.integer({ min: 200, max: 1200 }),
      original: fc.record({ width: fc.integer({ min: 300, max: 3000 }), height: fc.integer({ min: 300, max: 3000 }) }),
      marks: fc.array(aMark, { minLength: 1, maxLength: marks }),
      covers: fc.option(part),
      shows: fc.option(part),
      ring: fc.constantFrom(null, null, 'inside' as const),
      stretch: fc.constantFrom(1, 1, 0.7, 1.6),
      at: fc.record({ x: share, y: share, span: share }),
      composed: fc.constantFrom(false, false, true),
      clear: fc.boolean(),
    })
    .map((drawn): FrameToCheck => {
      const dimensions = { width: drawn.width, height: drawn.height };
      const place = samplePlace({
        ...dimensions,
        formats: drawn.clear ? ['jpeg', 'webp'] : ['jpeg'],
        shape: drawn.ring ? 'circle' : 'rectangle',
        covered: drawn.covers ? [{ ...sampleArea(0, 0, 1, 1), ...within(dimensions, drawn.covers, 0.1) }] : [],
        ...(drawn.shows ? { shownPart: { ...sampleArea(0, 0, 1, 1), ...within(dimensions, drawn.shows, 0.4) } } : {}),
      });
      const all = drawn.marks.map(({ part, role }, index): Mark => {
        const rect = within(drawn.original, part, 0.05);
        const mark = sampleMark({ ...rect, id: `00000000-0000-4000-8000-00000000000${index}`, name: `Kite ${index}` });
        if (role !== 'avoid') return { ...mark, priority: role };
        const { priority: _, kind: __, look: ___, ...avoided } = mark;
        return { ...avoided, role };
      });
      const original = { ...sampleOriginal(drawn.original), marks: all, hasAlpha: drawn.clear };
      const settings = byHand(
        {
          centreX: drawn.at.x * original.width,
          centreY: drawn.at.y * original.height,
          span: (0.15 + drawn.at.span) * original.width,
        },
        {
          composed: drawn.composed,
          stretch: drawn.stretch,
          ring: drawn.ring && { width: 20, colour: '#1f6f66', side: drawn.ring },
        },
      );
      const frame = { original, place, settings, treatment: plainTreatment, weight: null };
      const area = contentAreaOf(place, original, withBorder(frame));
      const window = clampWindow(
        settings.window ?? { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
        boundsOf(original, null),
        area.dimensions,
      );
      return { ...frame, settings: { ...settings, window } };
    });

const changed = (frame: FrameToCheck, change: FrameChange = {}): FrameToCheck => ({
  ...frame,
  settings: { ...frame.settings, ...change },
});
/** What a finding is about: marks are told by their names. */
const subject = ({ kind, text }: { kind: string; text: string }) =>
  `${kind.split(' ')[0]} ${/Kite \d/.exec(text)?.[0] ?? ''}`;

test('a fix takes away what it stands by, and costs no mark', () => {
  fc.assert(
    fc.property(aFrame(3), (frame) => {
      const before = frameFindings(frame);
      const cut = (found: typeof before) => found.filter(({ kind }) => kind.includes('mark'));
      for (const one of before) {
        if (!one.fix) continue;
        const after = frameFindings(changed(frame, one.fix.change));
        if (one.kind === 'enlarged') {
          const left = after.find(({ kind }) => kind === 'enlarged');
          const promised = Number.parseFloat(one.fix.label.slice('Loosen to '.length));
          expect(promised).toBeLessThan(Number(one.measured));
          if (left) expect(promised).toBeCloseTo(Number(left.measured), 1.9);
          else expect(promised).toBeLessThan(1.101);
          continue;
        }
        expect(after.map(subject)).not.toContain(subject(one));
        if (one.kind.includes('mark')) expect(cut(after).length).toBeLessThan(cut(before).length);
      }
    }),
    { numRuns: 300 },
  );
});

test('a mark that a shift along one side frees is shifted, and by no more than it takes', () => {
  let shifted = 0;
  fc.assert(
    fc.property(aFrame(1), (drawn) => {
      const frame = changed(drawn, { composed: false, ring: null });
      const { original, place, settings } = frame;
      const window = frameWindow(original, place, withBorder(frame), 0);
      const area = contentAreaOf(place, original, withBorder(frame));
      const { width, height } = area.dimensions;
      const marks = original.marks;
      const [unmet, ...others] = unmetMarks(window, area, marks);
      if (!unmet || unmet.kind === 'cut' || others.length > 0) return;
      const fix = frameFindings(frame).find(({ kind }) => kind.includes('mark'))?.fix;
      const bounds = boundsOf(original, null);
      const frees = (x: number, y: number) =>
        unmetMarks(nudge(window, { x, y }, bounds, area.dimensions), area, marks).length === 0;
      const steps = Array.from({ length: 24 }, (_, step) => ((step + 1) / 24) * Math.max(width, height));
      const least = steps.find((by) => frees(by, 0) || frees(-by, 0) || frees(0, by) || frees(0, -by));
      if (least === undefined || (original.marks[0]?.role === 'keep' && original.marks[0].priority !== 'must')) return;
      expect(fix?.label).toBe('Shift it');
      const to = fix?.change.window ?? window;
      const moved = (Math.hypot(to.centreX - window.centreX, to.centreY - window.centreY) * width) / window.span;
      expect(to.span).toBe(window.span);
      expect(settings.stretch === 1 ? moved : 0).toBeLessThan(least + 1);
      shifted += 1;
    }),
    { numRuns: 600 },
  );
  expect(shifted).toBeGreaterThan(20);
});
