import fc from 'fast-check';
import { plainTreatment } from '../finishing/index.ts';
import type { Rect } from '../geometry/index.ts';
import { type Dimensions, keepNothing, plainSettings } from '../model/index.ts';
import { sampleOriginal, samplePlace } from '../testing/index.ts';
import { type Part, planFrame, sourceMappingOf } from './index.ts';

const side = fc.integer({ min: 16, max: 20_000 });
const dimensions = fc.record({ width: side, height: side });
const share = fc.double({ min: 0, max: 1, noNaN: true });

const turn = fc.constantFrom(0, 90, 180, -90, 4.5, -33.3);

/** Whole pixels of a picture, at least sixteen each way. */
function trimOf({ width, height }: Dimensions, part: Rect): Rect {
  const [wide, high] = [width, height].map((side, axis) =>
    Math.max(16, Math.round(side * (axis === 0 ? part.width : part.height))),
  ) as [number, number];
  return {
    left: Math.round(part.left * (width - wide)),
    top: Math.round(part.top * (height - high)),
    width: wide,
    height: high,
  };
}

/** A plan of any picture at any place: turned, mirrored, trimmed, stretched, with a ring or a backing. */
export const aPlan = fc
  .record({
    original: dimensions,
    output: dimensions,
    x: share,
    y: share,
    span: share,
    png: fc.boolean(),
    turn,
    mirror: fc.boolean(),
    echo: fc.boolean(),
    ring: fc.constantFrom(0, 3, 40),
    stretch: fc.constantFrom(1, 1.7, 0.6),
    trim: fc.option(fc.record({ left: share, top: share, width: share, height: share })),
  })
  .map(({ original, output, x, y, span, png, turn, mirror, echo, ring, stretch, trim }) =>
    planFrame({
      treatment: plainTreatment,
      keeping: keepNothing,
      original: sampleOriginal({ ...original, trim: trim && trimOf(original, trim) }),
      place: samplePlace({ ...output, shape: 'rounded' }),
      settings: {
        window: {
          centreX: x * original.width,
          centreY: y * original.height,
          span: Math.max(1e-3, span * original.width * 2),
          turn,
          mirror,
        },
        ...plainSettings,
        composed: false,
        backing: echo ? { kind: 'echo' } : null,
        ring: ring > 0 ? { width: ring, colour: '#1f6f66', side: 'outside' } : null,
        stretch,
        format: png ? 'png' : 'jpeg',
      },
    }),
  );
/** What a plan takes from its original. */
export const aPart = aPlan.map((plan) => sourceMappingOf(plan).part);

const large = fc.integer({ min: 2000, max: 20_000 });
const small = fc.integer({ min: 16, max: 700 });

/** What a plan takes from an original with more pixels than it needs. */
export const aShrunkPart = fc
  .record({
    width: large,
    height: large,
    wide: small,
    high: small,
    x: share,
    y: share,
    span: share,
    trimmed: fc.boolean(),
  })
  .map(({ width, height, wide, high, x, y, span, trimmed }): Part => {
    const box = trimmed
      ? trimOf({ width, height }, { left: y, top: x, width: 0.7, height: 0.6 })
      : { left: 0, top: 0, width, height };
    const sides = { width: box.width * (0.3 + 0.7 * span), height: box.height * (1 - 0.6 * span) };
    const source = {
      left: box.left + x * (box.width - sides.width),
      top: box.top + y * (box.height - sides.height),
      ...sides,
    };
    return { original: { width, height }, source, within: box, output: { width: wide, height: high } };
  });
