import {
  type Analysis,
  type Lettering,
  type OriginalSettings,
  type ProposalKind,
  plainSettings,
} from '@inkwell/core/model';
import { sampleOriginal } from '@inkwell/core/testing';
import { expect, test } from 'vitest';
import { afterPress, deliveredFacts, inStrip } from './stripOrder.ts';
import { keepSeen, laidOver, type Selected, straightenSeen } from './toSelected.ts';

const shown = ['a', 'b', 'c', 'd', 'e'];

test('a press selects as in every list: alone nothing, with Ctrl one more or fewer, with Shift all in between', () => {
  const press = (id: string, last: string | null, keys: string, selected: string[] = []) => [
    ...afterPress(new Set(selected), shown, { id, last, isCtrl: keys.includes('c'), isShift: keys.includes('s') }),
  ];
  expect(press('b', null, '', ['a', 'c'])).toEqual([]);
  expect(press('b', null, 'c', ['a'])).toEqual(['a', 'b']);
  expect(press('a', 'b', 'c', ['a', 'b'])).toEqual(['b']);
  expect(press('d', 'b', 's', ['a'])).toEqual(['b', 'c', 'd']);
  expect(press('a', 'c', 's')).toEqual(['a', 'b', 'c']);
  expect(press('e', 'd', 'cs', ['a'])).toEqual(['a', 'd', 'e']);
  expect(press('c', null, 's')).toEqual(['c']);
  // What was pressed last may not be shown any more.
  expect(press('b', 'gone', 's')).toEqual(['a', 'b']);
});

test('pictures are ordered as people count, and filtered by what was delivered of them', () => {
  const original = (id: string, name: string, sha256: string) => ({ ...sampleOriginal(), id, name, sha256 });
  const originals = [original('1', 'Kite 10', 'x'), original('2', 'Kite 9', 'y'), original('3', 'Dunes', 'z')];
  const frame = (id: string, originalId: string) => ({
    ...plainSettings,
    id,
    projectId: 'p',
    originalId,
    placeId: 'sunpane/story',
    version: 1,
    format: 'jpeg' as const,
    window: { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
  });
  const frames = [frame('f1', '1'), frame('f2', '2'), frame('f3', '2'), frame('f4', '3')];
  const file = (planHash: string, originalSha256: string) => ({ planHash, originalSha256 });
  const files = [file('p1', 'x'), file('p2', 'y'), file('old', 'y')];
  const measured = new Map(['p1', 'p2', 'p3', 'p4'].map((planHash, at) => [`f${at + 1}`, { planHash }]));
  const delivered = deliveredFacts(frames, [{ files }], measured);
  const facts = { delivered, look: () => 'seen' as const };
  const names = (sort: 'as chosen' | 'by name', filter: 'all' | 'not delivered' | 'changed since') =>
    inStrip(originals, { sort, filter }, facts).map(({ name }) => name);
  expect(names('by name', 'all')).toEqual(['Dunes', 'Kite 9', 'Kite 10']);
  expect(names('as chosen', 'not delivered')).toEqual(['Dunes']);
  expect(names('as chosen', 'changed since')).toEqual(['Kite 9']);
  expect(originals.map(({ id }) => id)).toEqual(['1', '2', '3']);
  // What is left out is not waited for.
  const left = frames.map((one) =>
    one.id === 'f3' ? { ...one, verdict: { is: 'leave out' as const, plan: '' } } : one,
  );
  expect(deliveredFacts(left, [{ files }], measured)(original('2', 'Kite 9', 'y'))).toBe('as it is');
});

test('what is done to the selected is done to each as it is proposed there, and to no other', () => {
  const region = { left: 10, top: 10, width: 20, height: 20, sureness: 'sure' as const, look: null };
  const seen = (tilt: number | null, ...kinds: ProposalKind[]) =>
    ({
      version: 1,
      picture: 'photo',
      tilt,
      body: null,
      proposals: kinds.map((kind, at) => ({ ...region, left: 40 * at, kind, name: kind })),
    }) as unknown as Analysis;
  const known = new Map([
    ['a', seen(2, 'face', 'face', 'animal')],
    ['b', seen(null, 'animal')],
    ['c', seen(2, 'face')],
  ]);
  const settings: OriginalSettings = sampleOriginal();
  const frames = [...known.keys()].map((id) => ({ ...plainSettings, id: `f${id}`, originalId: id }));
  const selected: Selected = {
    ids: new Set(['a', 'b']),
    settingsOf: () => settings,
    analysisOf: (id) => known.get(id) ?? null,
    frames: frames as unknown as Selected['frames'],
    frameSettings: () => ({
      ...plainSettings,
      format: 'jpeg',
      window: { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
    }),
  };
  const kept = keepSeen(selected, 'face');
  expect([...kept.keys()]).toEqual(['a']);
  expect(kept.get('a')?.marks?.map((mark) => mark.role === 'keep' && [mark.priority, mark.kind])).toEqual([
    ['must', 'face'],
    ['must', 'face'],
  ]);
  expect(kept.get('a')?.decided).toHaveLength(2);
  const straight = straightenSeen(selected);
  expect([...straight.keys()]).toEqual(['fa']);
  expect(straight.get('fa')?.window?.turn).toBeCloseTo(-2, 9);
});

test('words are laid over more pictures, and over fewer, but never over none', () => {
  const lettering = (originalIds: string[] | null) =>
    [
      { id: 'title', originalIds },
      { id: 'other', originalIds: null },
    ] as unknown as Lettering;
  const over = (before: string[] | null, ...selected: string[]) =>
    laidOver(lettering(before), 'title', new Set(selected), ['a', 'b', 'c'])?.[0]?.originalIds;
  expect(over(['a'], 'b')).toEqual(['a', 'b']);
  expect(over(['a'], 'b', 'c')).toBeNull();
  expect(over(null, 'b')).toEqual(['a', 'c']);
  expect(over(['a', 'b'], 'a', 'b')).toBeUndefined();
});
