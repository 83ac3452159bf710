import { describe, expect, test } from 'vitest';
import { type Finish, FinishFileSchema, FinishSchema, TreatmentSchema } from '../../model/index.ts';
import { changesNothing, finishById, plainTreatment, resolveFinish, shippedFinishes } from '../index.ts';

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
  const [second, tone] = [{ amount: 1, radius: 0.5, threshold: 0 }, { kind: 'automatic', clip: 0.1 } as const];
  const changed = [{ saturation: 1.2 }, { tone }, { second, blend: 0.5 }].map((values) => ({
    ...plainTreatment,
    ...values,
  }));
  expect(changed.map(changesNothing)).toEqual([false, false, false]);
  expect(changesNothing({ ...plainTreatment, second, blend: 0 })).toBe(true);
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
