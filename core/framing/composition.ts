import { clamp, type Point } from '../geometry/index.ts';
import type { KeepMark } from '../model/index.ts';
import { besideWords } from './besideWords.ts';
import { openRect } from './constraints.ts';
import { type FramePose, support } from './halfSpaces.ts';
import type { Setting } from './setting.ts';

/** Where the subject is wanted in a frame. */
export interface Composition {
  /** The point of the original that the composition is about. */
  anchor: Point;
  /** Where it is wanted, from the frame's middle, in units of the window's span. */
  offset: Point;
  /** The span that makes the subject as large as the place wants it; null for as much of the picture as possible. */
  span: number | null;
  /** The part of the widest possible span that is not given up for the composition. */
  leastExtent: number;
}

const third = 1 / 3;
/** How far over the middle faces are wanted where there is room above them: the upper of the two eye lines. */
const faceHeight = 0.38;
/** A subject that looks to one side is moved this part of the frame to the other. */
const lookRoom = 0.08;
/** A profile picture shows its subject in this part of the frame's height. */
const profileShare = 0.62;
const leastExtent = 0.75;

/**
 * The rule of thirds, read so that it gives way smoothly: a subject in the middle third of the picture stays where it
 * is in the frame (which costs nothing of the picture), one further out goes to the nearer line of the thirds. A
 * profile picture puts its subject in the middle and large; faces go to the upper eye line; who looks to one side gets
 * room on it. All of that within the part of the frame that nothing covers, and beside the room that is made for words.
 */
export function compositionOf(
  kept: readonly KeepMark[],
  { box, contentArea, framePose, words }: Pick<Setting, 'box' | 'contentArea' | 'framePose' | 'words'>,
): Composition {
  const subjects = subjectsOf(kept);
  if (subjects.length === 0) {
    const anchor = { x: box.left + box.width / 2, y: box.top + box.height / 2 };
    return { anchor, offset: { x: 0, y: 0 }, span: null, leastExtent: 1 };
  }
  const extent = extentOf(subjects, framePose);
  const anchor = {
    x: framePose.across.x * extent.middle.x + framePose.down.x * extent.middle.y,
    y: framePose.across.y * extent.middle.x + framePose.down.y * extent.middle.y,
  };
  const { output } = framePose;
  const free = openRect(contentArea);
  const open = words ? besideWords(free, words.side, words.asked, output) : free;
  const profile = contentArea.purpose === 'profile';
  const inBox = { x: (anchor.x - box.left) / box.width, y: (anchor.y - box.top) / box.height };
  const inFrame = inPose(inBox, framePose);
  const faces = subjects.every((mark) => mark.kind === 'face');
  const looks = subjects.reduce((sum, mark) => sum + (mark.look === 'left' ? 1 : mark.look === 'right' ? -1 : 0), 0);
  const room = Math.sign(looks) * lookRoom * Math.min(1, Math.abs(looks)) * (framePose.across.x < 0 ? -1 : 1);
  const x = profile ? 0.5 : clamp(inFrame.x, third, 1 - third) + room;
  const y = profile ? 0.5 : clamp(inFrame.y, faces ? faceHeight : third, faces ? 0.5 : 1 - third);
  return {
    anchor,
    offset: {
      x: (open.left + open.width * x) / output.width - 0.5,
      y: (open.top + open.height * y - output.height / 2) / output.width,
    },
    span: profile ? Math.max(extent.width, (extent.height * output.width) / output.height) / profileShare : null,
    leastExtent,
  };
}

/** What a composition is about: the faces among the musts, else all musts, else all that is kept. */
function subjectsOf(kept: readonly KeepMark[]): readonly KeepMark[] {
  const musts = kept.filter((mark) => mark.priority === 'must');
  const faces = musts.filter((mark) => mark.kind === 'face');
  return faces.length > 0 ? faces : musts.length > 0 ? musts : kept;
}

/** The rectangle along the frame's axes that holds all marks. */
function extentOf(marks: readonly KeepMark[], { across, down }: FramePose) {
  const furthest = (direction: Point) => Math.max(...marks.map((mark) => support(mark, direction)));
  const [right, bottom] = [furthest(across), furthest(down)];
  const left = -furthest({ x: -across.x, y: -across.y });
  const top = -furthest({ x: -down.x, y: -down.y });
  return { middle: { x: (left + right) / 2, y: (top + bottom) / 2 }, width: right - left, height: bottom - top };
}

/** A place in the picture, 0..1 each way, as it is seen in the turned and mirrored frame. */
function inPose({ x, y }: Point, { across, down }: FramePose): Point {
  const fromMiddle = { x: x - 0.5, y: y - 0.5 };
  return {
    x: 0.5 + across.x * fromMiddle.x + across.y * fromMiddle.y,
    y: 0.5 + down.x * fromMiddle.x + down.y * fromMiddle.y,
  };
}
