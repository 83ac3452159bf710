import { describe, expect, test } from 'vitest';
import { type Finish, FinishFileSchema, FinishSchema, TreatmentSchema } from '../model/index.ts';
import { localRange, luminancePlane } from '../seeing/index.ts';
import { slantedEdge, steadyNoise, target } from '../testing/index.ts';
import {
  acutanceOf,
  changesNothing,
  finishById,
  finishFigures,
  haloOf,
  plainTreatment,
  resolveFinish,
  shippedFinishes,
} from './index.ts';

const own: Finish = { ...finishById('gentle', []), id: 'own', name: 'Dune light', version: 4, shipped: false };
const none = { finishId: null, blend: null };

describe('which finish holds', () => {
  test('the frame’s before its original’s before the project’s, and the blend alike', () => {
    const project = { finishId: 'crisp' };
    const at = (frame: Partial<typeof none> | object, original: object) => {
      const { finish, from, treatment } = resolveFinish(
        { frame: { ...none, ...frame }, original: { ...none, ...original }, project },
        [own],
      );
      return [finish.id, from, treatment.blend];
    };
    const crisp = finishById('crisp', []).treatment.blend;
    expect(at({}, {})).toEqual(['crisp', 'project', crisp]);
    expect(at({}, { finishId: 'own' })).toEqual(['own', 'original', own.treatment.blend]);
    expect(at({ finishId: 'scan' }, { finishId: 'own' })).toEqual(['scan', 'frame', 0]);
    expect(at({}, { blend: 0.7 })).toEqual(['crisp', 'project', 0.7]);
    expect(at({ blend: 0 }, { blend: 0.7 })).toEqual(['crisp', 'project', 0]);
  });

  test('one that is gone leaves the picture plain', () => {
    const { finish } = resolveFinish({ frame: none, original: none, project: { finishId: 'gone' } }, [own]);
    expect(finish.id).toBe('plain');
    expect(changesNothing(finish.treatment)).toBe(true);
  });
});

test('the finishes that ship are whole, differ, and say what they are for; only Plain changes nothing', () => {
  for (const finish of shippedFinishes) {
    expect(FinishSchema.parse(finish)).toEqual(finish);
    expect(finish.description.length).toBeGreaterThan(40);
    const { name, description, treatment } = finish;
    expect(FinishFileSchema.parse({ inkwellFinish: 1, name, description, treatment }).name).toBe(name);
  }
  expect(new Set(shippedFinishes.map(({ id }) => id)).size).toBe(shippedFinishes.length);
  expect(shippedFinishes.filter(({ treatment }) => changesNothing(treatment)).map(({ id }) => id)).toEqual(['plain']);
  const gentle = finishById('gentle', []).treatment;
  expect(gentle.sharpen.amount).toBeLessThan(finishById('crisp', []).treatment.sharpen.amount);
});

test('a treatment out of bounds is refused in words', () => {
  const problems = (values: object) =>
    TreatmentSchema.safeParse({ ...plainTreatment, ...values }).error?.issues.map(({ message }) => message);
  expect(problems({ oversize: 3 })).toEqual(['Oversize is a number from 1 to 2.5.']);
  expect(problems({ sharpen: { amount: -1, radius: 9, threshold: 0 } })).toEqual([
    'An amount is a number from 0 to 5.',
    'A radius is a number from 0.2 to 4.',
  ]);
  expect(problems({ tone: { kind: 'by hand', black: 200, white: 100, midtones: 1 } })).toEqual([
    'The white point has to be above the black point.',
  ]);
  expect(problems({ border: { width: 0 } })?.length).toBeGreaterThan(0);
});

describe('figures', () => {
  test('acutance is the slope of edges, and doubles with their contrast', () => {
    const of = (dark: number, light: number) => {
      const edge = slantedEdge(120, 90, dark, light);
      return finishFigures(edge, edge).plain.acutance;
    };
    expect(of(50, 150) / of(50, 100)).toBeCloseTo(2, 1);
    const flat = target(30, 30, () => 90);
    expect(finishFigures(flat, flat)).toMatchObject({
      plain: { acutance: 0, luminance: 90, chroma: 0, noise: 0 },
      halo: 0,
    });
  });

  test('a tall picture has the figures of its parts, wherever the bands of measuring end', () => {
    const random = steadyNoise(4);
    const tall = target(40, 700, (x, y) => 120 + 60 * Math.sin(x / 3 + y / 50) + 5 * random());
    const edgy = { ...tall, data: tall.data.map((value) => value + (value > 150 ? 40 : 0)) };
    const { plain, halo } = finishFigures(tall, edgy);
    const plane = luminancePlane(tall);
    const { low, high } = localRange(plane, 2);
    expect(plain.acutance).toBeCloseTo(acutanceOf(plane), 2);
    expect(halo).toBeCloseTo(haloOf(luminancePlane(edgy), low, high), 3);
    expect(halo).toBeGreaterThan(0.01);
  });

  test('a halo is the share of an edge’s contrast by which it overshoots', () => {
    const edge = target(60, 40, (x) => (x < 30 ? 60 : 160));
    const glowing = target(60, 40, (x) => (x < 28 ? 60 : x < 30 ? 50 : x < 32 ? 170 : 160));
    expect(finishFigures(edge, edge).halo).toBe(0);
    expect(finishFigures(edge, glowing).halo).toBeCloseTo(0.1, 2);
  });

  test('black and white are counted, and means are those of the pixels', () => {
    const picture = target(10, 10, (_, y) => (y < 2 ? 0 : y < 5 ? 255 : [200, 100, 50]));
    const { plain } = finishFigures(picture, picture);
    expect(plain).toMatchObject({ shadows: 0.2, lights: 0.3 });
    expect(plain.luminance).toBeCloseTo(0.3 * 255 + 0.5 * (0.2126 * 200 + 0.7152 * 100 + 0.0722 * 50), 1);
    expect(plain.chroma).toBeGreaterThan(10);
  });
});
