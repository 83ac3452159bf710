import { isGood } from '@inkwell/core/checking';
import { fileDimensions } from '@inkwell/core/geometry';
import { countingSimilarity, isLeftOut, limitFor } from '@inkwell/core/model';
import type { ProjectFrame } from '../projectFrames.ts';

/** What can be said of a file, the worst first. */
export const fileStates = ['held back', 'not measured', 'doubtful', 'measuring', 'good', 'left out'] as const;
export type FileState = (typeof fileStates)[number];

/** One file that a project delivers. */
export interface FileRow {
  key: string;
  one: ProjectFrame;
  place: string;
  /** Which of several files it is, or empty. */
  number: string;
  width: number;
  height: number;
  bytes: number | null;
  share: number | null;
  similarity: number | null;
  worst: number | null;
  quality: number | null;
  state: FileState;
}

/** The files that a frame becomes, in posting order. */
export function rowsOf(one: ProjectFrame): FileRow[] {
  const { frame, at, weight, pieces } = one;
  const state = stateOf(one);
  return pieces.map((piece) => {
    const file = weight?.files[piece?.index ?? 0] ?? null;
    return {
      key: `${frame.id} ${piece?.index ?? 0}`,
      one,
      place: `${at.network.name} ${at.place.name}`,
      number: piece ? `${piece.number} of ${piece.of}` : '',
      ...fileDimensions(at.place, one.original, frame),
      bytes: file?.bytes ?? null,
      share: file ? file.bytes / limitFor(at.place, frame.format).bytes : null,
      similarity: file && countingSimilarity(file.similarity),
      worst: file?.similarity.worst.similarity ?? null,
      quality: file?.quality ?? null,
      state,
    };
  });
}

function stateOf({ frame, weight, failure, findings }: ProjectFrame): FileState {
  if (isLeftOut(frame)) return 'left out';
  const tooHeavy = weight && !isGood(weight) && !frame.weighing.belowFloor;
  if (tooHeavy || findings.some(({ level }) => level === 'blocker')) return 'held back';
  if (!weight) return failure ? 'not measured' : 'measuring';
  return findings.length > 0 ? 'doubtful' : 'good';
}
