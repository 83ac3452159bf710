import { keepNothing, type Measured, nothingSaid, type PlaceOfNetwork, type Planned } from '@inkwell/core/model';
import { byHand, sampleOriginal, samplePlace, sampleWeight } from '@inkwell/core/testing';
import { expect, test } from 'vitest';
import { frameFacts } from './frameFacts.ts';

const one = {
  original: sampleOriginal(),
  at: { id: 'net/sample', network: {}, place: samplePlace() } as PlaceOfNetwork,
  finishing: {
    project: {
      finishId: 'crisp',
      keeping: keepNothing,
      composing: 'seen' as const,
      lettering: [],
      posting: nothingSaid,
    },
    finishes: [],
    book: null,
  },
  seen: null,
};
const settings = (centreX: number) => byHand({ centreX, centreY: 500, span: 600 });
const measured = (planned: Planned): Measured => ({
  frameId: '00000000-0000-4000-8000-000000000001',
  ...planned,
  weight: sampleWeight(),
  detail: [],
  legibility: [],
  isFinished: false,
  figures: null,
  failure: null,
});

test('a plan has the name that the server gives it, from when that was said of the same versions', () => {
  const first = measured({ basis: '1', planHash: 'server one', plainHash: 'server plain one' });
  // Nothing is asked for by the name that this browser would give it: the server may not know that one.
  expect(frameFacts(one, settings(400), undefined, '1')).toMatchObject({ planHash: null, plainHash: null });
  // What was measured of an earlier version says nothing of this one.
  expect(frameFacts(one, settings(400), first, '2')).toMatchObject({ planHash: null, weight: null });
  expect(frameFacts(one, settings(400), first, '1')).toMatchObject({
    planHash: 'server one',
    plainHash: 'server plain one',
    weight: first.weight,
  });
  // It is moved and not saved yet: it has no name, and nothing was measured of it.
  expect(frameFacts(one, settings(300), first, null)).toMatchObject({ planHash: null, weight: null });
  // It is moved back: the name is known at once, before anything is saved.
  expect(frameFacts(one, settings(400), first, null)).toMatchObject({ planHash: 'server one', weight: first.weight });
  // Saved as the next version, the server names it anew.
  const second = measured({ basis: '2', planHash: 'server two', plainHash: 'server plain two' });
  expect(frameFacts(one, settings(300), second, '2').planHash).toBe('server two');
});
