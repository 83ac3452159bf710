import { markInFrame } from '@inkwell/core/framing';
import type { Point } from '@inkwell/core/geometry';
import type { Mark } from '@inkwell/core/model';
import type { FrameState } from './benchFrame.ts';

/** The middle of a mark in the file. */
function markCentre(mark: Mark, { window, contentArea, settings }: FrameState): Point {
  const { left, top, width, height } = markInFrame(mark, window, contentArea);
  return { x: left + width / 2, y: (top + height / 2) / settings.stretch };
}

/** The keep marks of an original, as spots of the file that one can go to. */
export const markSpots = (marks: readonly Mark[], state: FrameState) =>
  marks
    .filter(({ role }) => role === 'keep')
    .map((mark) => ({ id: mark.id, name: mark.name, centre: markCentre(mark, state) }));
