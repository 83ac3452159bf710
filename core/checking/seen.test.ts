import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainTreatment } from '../finishing/index.ts';
import type { MarkToCompose } from '../model/index.ts';
import { byHand, sampleMark, sampleOriginal, samplePlace } from '../testing/index.ts';
import { frameFindings } from './index.ts';

const place = samplePlace();
const found = (
  marks: MarkToCompose[],
  values: { tilt?: number | null; turn?: number; mirror?: boolean; composed?: boolean } = {},
) => {
  const { tilt = null, turn = 0, mirror = false, composed = false } = values;
  const settings = byHand({ centreX: 300, centreY: 250, span: 600, turn, mirror }, { composed });
  const original = { ...sampleOriginal({ width: 2000, height: 1500 }), marks };
  return frameFindings({ original, tilt, place, settings, treatment: plainTreatment, weight: null });
};

test('what was seen is told where it is sure, as a caution, and once however many there are', () => {
  const outside = { left: 900, top: 900, priority: 'should' as const };
  const seen = (proposed: 'sure' | 'likely', name = 'face', id = proposed) => ({
    ...sampleMark({ ...outside, name, id }),
    proposed,
  });
  expect(found([seen('sure'), seen('sure', 'face', 'other' as 'sure'), seen('likely')])).toMatchObject([
    { kind: 'mark cut', level: 'caution', text: 'A face may be cut.' },
  ]);
  expect(found([seen('sure', 'words'), seen('sure', 'elephant', 'b' as 'sure')]).map(({ text }) => text)).toEqual([
    'Words may be cut.',
    'An elephant may be cut.',
  ]);
  expect(found([sampleMark(outside)])).toEqual([]);
});

test('a picture that leans is straightened by its fix, in whatever pose; nobody who has turned it is told', () => {
  const tilts = fc.double({ min: -8, max: 8, noNaN: true }).filter((tilt) => Math.abs(tilt) > 0.3);
  fc.assert(
    fc.property(tilts, fc.constantFrom(-90, 0, 90, 180), fc.boolean(), fc.boolean(), (tilt, turn, mirror, composed) => {
      const [finding] = found([], { tilt, turn, mirror, composed });
      expect(finding).toMatchObject({ kind: 'leaning', level: 'caution' });
      const change = finding?.fix?.change;
      expect(change?.composed).toBe(composed);
      const turned = change?.window?.turn ?? 0;
      expect(turned > -180 && turned <= 180).toBe(true);
      // Turned by so much the other way, what leant is level again.
      expect(Math.abs(((((turned + tilt - turn) % 360) + 540) % 360) - 180)).toBeLessThan(1e-9);
      expect(found([], { tilt, turn: turned, mirror, composed })).toEqual([]);
    }),
  );
  expect(found([], { tilt: 1.44 })[0]).toMatchObject({
    text: 'The picture leans 1.4° to the right.',
    fix: { label: 'Straighten by 1.4°' },
  });
  expect(found([], { tilt: 1.44, mirror: true })[0]?.text).toBe('The picture leans 1.4° to the left.');
  expect([found([]), found([], { tilt: 2, turn: 0.5 })]).toEqual([[], []]);
});
