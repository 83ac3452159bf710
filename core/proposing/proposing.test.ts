import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { area, intersection, sharedPart } from '../geometry/index.ts';
import type { Analysis, MarkToCompose, Proposal } from '../model/index.ts';
import { sampleMark, sampleOriginal } from '../testing/index.ts';
import {
  asComposed,
  avoidMarkOf,
  decisionOn,
  keepMarkOf,
  type LookSize,
  lookSizes,
  merged,
  openBody,
  openProposals,
  openTilt,
  seenWords,
  surenessOf,
} from './index.ts';

const proposal = (values: Partial<Proposal> = {}): Proposal => ({
  kind: 'animal',
  name: 'dog',
  sureness: 'sure',
  look: null,
  left: 100,
  top: 100,
  width: 200,
  height: 100,
  ...values,
});

const analysis = (proposals: Proposal[], values: Partial<Analysis> = {}): Analysis => ({
  version: 1,
  proposals,
  tilt: null,
  body: null,
  picture: 'photo',
  ground: null,
  ...values,
});

describe('what is still proposed', () => {
  test('a decision holds for good, also where a later look sees the same a little elsewhere; other things stay proposed', () => {
    const dog = proposal();
    const original = sampleOriginal({ decided: [decisionOn(dog)] });
    const later = { ...dog, left: 110, top: 106, width: 210 };
    const away = { ...dog, left: 400 };
    const face = { ...dog, kind: 'face' as const };
    expect(openProposals(original, analysis([dog, later, away, face]))).toEqual([away, face]);
    expect(openProposals(original, null)).toEqual([]);
  });

  test('what a person has marked is not proposed, and their other marks change nothing', () => {
    const marks = [sampleMark({ left: 104, top: 98, width: 190, height: 110 }), sampleMark({ left: 600, top: 600 })];
    expect(openProposals(sampleOriginal({ marks }), analysis([proposal(), proposal({ left: 700 })]))).toEqual([
      proposal({ left: 700 }),
    ]);
  });

  test('a tilt and a body are proposed until they are decided on, a body only where nothing is trimmed', () => {
    const body = { left: 10, top: 10, width: 500, height: 400 };
    const seen = analysis([], { tilt: 1.4, body });
    const open = (original = sampleOriginal()) => [openTilt(original, seen), openBody(original, seen)];
    expect(open()).toEqual([1.4, body]);
    expect(open(sampleOriginal({ decided: [{ kind: 'tilt' }] }))).toEqual([null, body]);
    expect(open(sampleOriginal({ decided: [{ kind: 'body' }] }))).toEqual([1.4, null]);
    expect(openBody(sampleOriginal({ trim: body }), seen)).toBeNull();
    expect([openTilt(sampleOriginal(), null), openBody(sampleOriginal(), null)]).toEqual([null, null]);
  });
});

describe('what frames are composed from', () => {
  const composed = (proposals: Proposal[], marks = sampleOriginal().marks) =>
    asComposed(sampleOriginal({ marks }), analysis(proposals), 'seen').marks;

  test('a face that is sure must be in, all else should, the larger first; what a person has marked comes first and stays as it is', () => {
    const mine = sampleMark({ priority: 'should', left: 800 });
    const marks = composed(
      [
        proposal({ left: 20, top: 500, width: 60, height: 20 }),
        proposal(),
        proposal({ kind: 'words', name: 'words', left: 300, sureness: 'likely' }),
        proposal({ kind: 'face', name: 'face', left: 500, look: 'left' }),
        proposal({ kind: 'face', name: 'face', left: 700, top: 500, sureness: 'likely' }),
      ],
      [mine],
    );
    expect(marks[0]).toBe(mine);
    expect(marks.slice(1)).toMatchObject([
      { kind: 'face', priority: 'must', look: 'left', shape: 'ellipse', proposed: 'sure' },
      { kind: 'subject', priority: 'should', name: 'dog', shape: 'rectangle', proposed: 'sure', top: 100 },
      { kind: 'subject', priority: 'should', name: 'dog', shape: 'rectangle', proposed: 'sure', top: 500 },
      { kind: 'face', priority: 'should', proposed: 'likely' },
      { kind: 'text', priority: 'should', proposed: 'likely' },
    ]);
    expect(new Set(marks.map(({ id }) => id)).size).toBe(marks.length);
  });

  test('the switch leaves a person’s own marks alone, and so does a picture in which nothing was seen', () => {
    const original = sampleOriginal({ marks: [sampleMark()] });
    expect(asComposed(original, analysis([proposal({ left: 700 })]), 'marks')).toBe(original);
    expect(asComposed(original, null, 'seen')).toBe(original);
    expect(asComposed(original, analysis([]), 'seen')).toBe(original);
  });

  test('of very many the surest are enough', () => {
    const many = Array.from({ length: 60 }, (_, at) =>
      proposal({ left: 20 * at, width: 10, sureness: at % 2 === 0 ? 'likely' : 'sure' }),
    );
    const marks: MarkToCompose[] = composed(many);
    expect(marks).toHaveLength(24);
    expect(marks.every(({ proposed }) => proposed === 'sure')).toBe(true);
  });

  test('a proposal becomes the mark that it is confirmed as', () => {
    const id = '00000000-0000-4000-8000-000000000009';
    const { left, top, width, height } = proposal();
    expect(keepMarkOf(proposal(), id, 'Dog 1')).toMatchObject({
      id,
      name: 'Dog 1',
      role: 'keep',
      priority: 'must',
      left,
      top,
      width,
      height,
    });
    expect(avoidMarkOf(proposal(), id, 'Dog 1')).toEqual({
      id,
      name: 'Dog 1',
      role: 'avoid',
      shape: 'rectangle',
      left,
      top,
      width,
      height,
    });
  });
});

test('a picture is looked at whole twice, the second time so that its shorter side is as large as its longer one was', () => {
  const side = fc.integer({ min: 16, max: 4000 });
  fc.assert(
    fc.property(side, side, fc.constantFrom(1, 0.5), (width, height, share) => {
      const [far, close] = lookSizes({ width, height }, share) as [LookSize, LookSize];
      for (const { picture, padded } of [far, close]) {
        expect([padded.width % 32, padded.height % 32]).toEqual([0, 0]);
        expect([0, 1]).toContain(padded.width - picture.width - 2 * picture.left);
        expect([0, 1]).toContain(padded.height - picture.height - 2 * picture.top);
        // As the picture is, to half a pixel.
        const scale = Math.max(picture.width, picture.height) / Math.max(width, height);
        expect(Math.abs(picture.width - Math.max(1, width * scale))).toBeLessThanOrEqual(0.5);
        expect(Math.abs(picture.height - Math.max(1, height * scale))).toBeLessThanOrEqual(0.5);
      }
      expect([far.padded.width, far.padded.height]).toEqual([512 * share, 512 * share]);
      expect(Math.max(far.picture.width, far.picture.height)).toBe(512 * share);
      expect(Math.max(close.picture.left, close.picture.top)).toBeLessThan(16);
      const [short, long] = [Math.min(width, height), Math.max(width, height)];
      if (long > 4 * short) expect(Math.max(close.picture.width, close.picture.height)).toBe(2048 * share);
      else if (long < 1.5 * short) expect(Math.max(close.picture.width, close.picture.height)).toBe(768 * share);
      else expect(Math.min(close.picture.width, close.picture.height)).toBe(512 * share);
    }),
  );
});

test('of reports of one thing the surest stays: none that stays is like a surer one, and each that goes is', () => {
  const [near, length] = [fc.integer({ min: 0, max: 12 }), fc.integer({ min: 10, max: 30 })];
  const aReport = fc.record({
    name: fc.constantFrom('dog', 'kite'),
    score: fc.double({ min: 0.1, max: 1, noNaN: true }),
    // Close enough that many share most of what they cover, or lie in each other.
    rect: fc.record({ left: near, top: near, width: length, height: length }),
  });
  fc.assert(
    fc.property(fc.array(aReport, { maxLength: 12 }), (reports) => {
      const kept = merged(reports);
      const isLike = (one: (typeof reports)[number], other: (typeof reports)[number]) =>
        sharedPart(one.rect, other.rect) >= (one.name === other.name ? 0.4 : 0.7) ||
        (one.name === other.name && area(intersection(one.rect, other.rect)) >= 0.8 * area(one.rect));
      for (const [at, one] of kept.entries()) {
        expect(kept.slice(0, at).every((other) => other.score >= one.score && !isLike(one, other))).toBe(true);
      }
      for (const one of reports) {
        if (!kept.includes(one))
          expect(kept.some((other) => other.score >= one.score && isLike(one, other))).toBe(true);
      }
    }),
  );
});

test('it is said in words how sure, how many and of what kind', () => {
  expect([0.9, 0.78, 0.6].map((score) => surenessOf('face', score))).toEqual(['sure', 'likely', null]);
  expect([0.7, 0.55, 0.4].map((score) => surenessOf('object', score))).toEqual(['sure', 'likely', null]);
  const named = (...names: string[]) => seenWords(names.map((name) => ({ name })));
  expect(named('face', 'face', 'dog', 'words', 'words')).toBe('two faces, one dog, words');
  expect(named('teddy', 'teddy', 'sheep', 'sheep')).toBe('two teddies, two sheep');
  expect(named('person', 'person', 'bus', 'bus', 'what stands out')).toBe('two people, two buses, what stands out');
});
