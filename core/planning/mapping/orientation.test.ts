import fc from 'fast-check';
import { expect, test } from 'vitest';
import { asStored, type Orientation, type Part } from '../index.ts';
import { aPart } from '../testPlans.ts';

test('a part of stored pixels takes as much, from inside, and undoes itself where turning does', () => {
  const inverse: Record<Orientation, Orientation> = { 1: 1, 2: 2, 3: 3, 4: 4, 5: 5, 6: 8, 7: 7, 8: 6 };
  /** How far it reaches past the picture. */
  const shareOf = ({ original: { width, height }, source: { left, top, width: wide, height: high } }: Part) =>
    Math.max(-left, -top, left + wide - width, top + high - height);
  fc.assert(
    fc.property(aPart, fc.constantFrom<Orientation>(1, 2, 3, 4, 5, 6, 7, 8), (part, orientation) => {
      const stored = asStored(part, orientation);
      expect(stored.source.width * stored.source.height).toBeCloseTo(part.source.width * part.source.height, 3);
      expect(shareOf(stored)).toBeCloseTo(shareOf(part), 6);
      const { width, height } = part.original;
      expect(stored.original).toEqual(orientation >= 5 ? { width: height, height: width } : { width, height });
      const back = asStored(stored, inverse[orientation]);
      expect(back.source.left).toBeCloseTo(part.source.left, 3);
      expect(back.source.top).toBeCloseTo(part.source.top, 3);
      expect(back.output).toEqual(part.output);
    }),
  );
});
