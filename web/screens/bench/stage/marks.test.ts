import { MarkSchema, marksLimit, type Proposal } from '@inkwell/core/model';
import { sampleOriginal } from '@inkwell/core/testing';
import { expect, test } from 'vitest';
import { decided, inRole, middleRegion, newMark } from './marks.ts';

const original = sampleOriginal({ height: 600 });

test('a new mark lies inside the picture, is valid, and has a name of its own', () => {
  const first = newMark('keep', { left: -50, top: 590, width: 100, height: 4 }, original);
  expect(first).toMatchObject({
    name: 'Keep 1',
    role: 'keep',
    priority: 'must',
    left: 0,
    width: 100,
    height: 8,
    top: 590,
  });
  expect(MarkSchema.parse(first)).toEqual(first);
  const second = newMark('keep', middleRegion(original), { ...original, marks: [first] });
  expect(second).toMatchObject({ name: 'Keep 2', left: 400, top: 240, width: 200, height: 120 });
  expect(newMark('avoid', middleRegion(original), { ...original, marks: [first, second] }).name).toBe('Avoid 1');
});

test('a mark keeps its name and place when it changes its role', () => {
  const keep = { ...newMark('keep', middleRegion(original), original), kind: 'face' as const };
  const avoid = inRole(keep, 'avoid');
  expect(avoid).toEqual({
    id: keep.id,
    name: 'Keep 1',
    role: 'avoid',
    shape: 'rectangle',
    left: 400,
    top: 240,
    width: 200,
    height: 120,
  });
  expect(MarkSchema.parse(inRole(avoid, 'keep'))).toMatchObject({ role: 'keep', priority: 'must', kind: null });
  expect(inRole(keep, 'keep')).toBe(keep);
});

test('of proposals that are kept, those for which there is no room stay proposed; dismissed are all', () => {
  const seen = (left: number): Proposal => {
    return { kind: 'thing', name: 'kite', sureness: 'sure', look: null, left, top: 10, width: 20, height: 30 };
  };
  const marks = Array.from({ length: marksLimit - 1 }, () => newMark('keep', middleRegion(original), original));
  const kept = decided({ marks, decided: [] }, [seen(100), seen(200)], 'keep');
  expect(kept.marks).toHaveLength(marksLimit);
  expect(MarkSchema.parse(kept.marks.at(-1))).toMatchObject({
    name: 'Kite 1',
    role: 'keep',
    priority: 'must',
    left: 100,
  });
  expect(kept.decided).toEqual([{ kind: 'thing', left: 100, top: 10, width: 20, height: 30 }]);
  const dismissed = decided({ marks, decided: kept.decided }, [seen(200), seen(300)], 'dismiss');
  expect([dismissed.marks.length, dismissed.decided.length]).toEqual([marks.length, 3]);
});
