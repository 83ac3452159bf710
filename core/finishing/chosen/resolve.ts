import type { Finish, FinishChoice, Treatment } from '../../model/index.ts';
import { plainFinishId, shippedFinishes } from './shipped.ts';

/** Who has a say in how a frame is finished: the frame before its original, and both before the project. */
export interface FinishChain {
  frame: FinishChoice;
  original: FinishChoice;
  project: { finishId: string };
}

/** Where a finish comes from. */
export type FinishSource = keyof FinishChain;

export interface ResolvedFinish {
  finish: Finish;
  from: FinishSource;
  /** The finish's treatment with the blend that holds for the frame. */
  treatment: Treatment;
}

/** The finish of a frame. One that is no longer there leaves the picture plain. */
export function resolveFinish({ frame, original, project }: FinishChain, finishes: readonly Finish[]): ResolvedFinish {
  const from: FinishSource = frame.finishId !== null ? 'frame' : original.finishId !== null ? 'original' : 'project';
  const id = frame.finishId ?? original.finishId ?? project.finishId;
  const finish = finishById(id, finishes);
  const { treatment } = finish;
  return { finish, from, treatment: { ...treatment, blend: frame.blend ?? original.blend ?? treatment.blend } };
}

export function finishById(id: string, finishes: readonly Finish[]): Finish {
  const found = [...finishes, ...shippedFinishes].find((one) => one.id === id);
  const plain = shippedFinishes.find((one) => one.id === plainFinishId);
  if (!found && !plain) throw new Error('The plain finish is missing among those that ship.');
  return (found ?? plain) as Finish;
}

/** Whether a treatment leaves every pixel as plain scaling makes it. Its border is another matter. */
export function changesNothing({ sharpen, second, blend, compensate, tone, saturation }: Treatment): boolean {
  const sharp = sharpen.amount > 0 || (blend > 0 && second.amount > 0);
  const byHand = compensate.kind === 'by hand' && (compensate.midtones !== 1 || compensate.saturation !== 1);
  return !sharp && !byHand && tone.kind === 'as it is' && saturation === 1;
}
