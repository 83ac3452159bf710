import { expect, test } from 'vitest';
import { plainTreatment } from '../../finishing/index.ts';
import { plainWeighing, type Similarity } from '../../model/index.ts';
import { byHand, sampleOriginal, samplePlace, sampleWeight } from '../../testing/index.ts';
import { similarityFloor, tierFloors } from '../../weighing/index.ts';
import { frameFindings } from '../index.ts';

const spot = (similarity: number) => ({ worst: { left: 0, top: 0, width: 32, height: 32, similarity } });
const { glance } = tierFloors;

/** What is found about files of such similarities, one for each piece of the frame. */
const found = (files: Partial<Similarity>[], belowFloor = false) => {
  const pieces = files.map((similarity) => sampleWeight({}, similarity));
  const weight = { ...sampleWeight(), files: pieces.flatMap((one) => one.files) };
  return frameFindings({
    original: sampleOriginal(),
    place: samplePlace(),
    settings: byHand({ centreX: 500, centreY: 500, span: 1000 }, { weighing: { ...plainWeighing, belowFloor } }),
    treatment: plainTreatment,
    weight,
  });
};
const good: Partial<Similarity> = {};

test.each<[string, Partial<Similarity>, Partial<Similarity>, number, RegExp]>([
  ['the whole', { overall: glance.overall }, { overall: 94.9 }, 94.9, /^Of the picture 94\.9 of 100/],
  ['a mark', { regions: [glance.overall] }, { regions: [94.9, 99] }, 94.9, /^Of a keep mark 94\.9 of 100/],
  ['flat areas', { flatAreaError: glance.flatAreaError }, { flatAreaError: 5.2 }, 5.2, /by 5\.2 of 255/],
  ['a spot', spot(glance.worst), spot(83.9), 83.9, /only 83\.9 of 100/],
  ['a block', { blockError: glance.blockError }, { blockError: 15.2 }, 15.2, /moved by 15 of 255/],
])('%s is told just beyond what passes a glance, in any piece of a frame', (_, holds, misses, measured, text) => {
  expect(found([holds])).toEqual([]);
  expect(found([misses])[0]?.text).toMatch(text);
  for (const files of [[misses], [misses, good], [good, misses]]) {
    expect(found(files)).toMatchObject([{ level: 'caution', measured }]);
  }
});

test('below the floor a frame is held back, in whichever piece, unless a person lets it go', () => {
  const { overall, worst, flatAreaError, blockError } = similarityFloor;
  const floor = { overall, flatAreaError, blockError, ...spot(worst) };
  expect(found([floor]).map(({ level }) => level)).toEqual(['caution']);
  for (const broken of [{ overall: 91.9 }, spot(71.9), { flatAreaError: 11.1 }, { blockError: 30.1 }]) {
    for (const files of [
      [broken, good],
      [good, broken],
    ]) {
      expect(found(files)).toMatchObject([{ kind: 'low quality', level: 'blocker' }]);
      expect(found(files, true).map(({ level }) => level)).toEqual(['caution']);
    }
  }
});
