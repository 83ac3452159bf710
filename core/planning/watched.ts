import { markInFrame } from '../framing/index.ts';
import { intersection, marksOnPicture, pictureBox, type Rect } from '../geometry/index.ts';
import type { Dimensions, KeepMark, Mark, Original } from '../model/index.ts';
import { planContentArea } from './contentArea.ts';
import type { RenderPlan } from './renderPlan.ts';

type Laid = Pick<RenderPlan, 'output' | 'shape' | 'stretch' | 'closing' | 'border' | 'window'>;

/** The rectangle that holds a mark in the file, in its pixels; it may reach past the file. */
export function markInFile(mark: Mark, plan: Laid): Rect {
  const { window, margins } = planContentArea(plan);
  const { left, top, width, height } = markInFrame(mark, plan.window, window);
  return { left: left + margins.left, top: top / plan.stretch + margins.top, width, height: height / plan.stretch };
}

/** A region of fewer pixels each way says nothing on its own. */
const leastWatched = 8;

/** The keep marks that a file shows, with the whole pixels that they take. */
export function watchedMarks(
  original: Pick<Original, 'width' | 'height' | 'trim' | 'marks'>,
  plan: Laid,
): { mark: KeepMark; rect: Rect }[] {
  const keeps = marksOnPicture(original.marks, pictureBox(original)).filter((mark) => mark.role === 'keep');
  return keeps.flatMap((mark) => watchedRect(markInFile(mark, plan), plan.output).map((rect) => ({ mark, rect })));
}

/** The whole pixels of a file that a rectangle takes; none where it is too small to say anything. */
export function watchedRect(box: Rect, output: Dimensions): Rect[] {
  const seen = intersection(box, { left: 0, top: 0, ...output });
  const [left, top] = [Math.floor(seen.left), Math.floor(seen.top)];
  const rect = {
    left,
    top,
    width: Math.min(output.width, Math.ceil(seen.left + seen.width)) - left,
    height: Math.min(output.height, Math.ceil(seen.top + seen.height)) - top,
  };
  return Math.min(rect.width, rect.height) >= leastWatched ? [rect] : [];
}
