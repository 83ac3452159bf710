import type { Dimensions, Window } from '../model/index.ts';
import type { Point } from './rect.ts';

/** Height of a window over its width. */
export const heightOverWidth = (output: Dimensions) => output.height / output.width;

const exact = new Map([
  [0, { x: 1, y: 0 }],
  [90, { x: 0, y: 1 }],
  [-90, { x: 0, y: -1 }],
  [180, { x: -1, y: 0 }],
]);

/** Cosine (`x`) and sine (`y`) of a turn in degrees; exact for quarter turns. */
export function turnVector(turn: number): Point {
  const radians = (turn * Math.PI) / 180;
  return exact.get(turn) ?? { x: Math.cos(radians), y: Math.sin(radians) };
}

/** A turn in degrees brought into the range above -180 up to 180. */
export const normalTurn = (turn: number): number => turn - 360 * Math.ceil((turn - 180) / 360);

/** The quarter turns (0, 90, 180 or -90 degrees) nearest to a turn, and what is left: the straightening, -45..45. */
export function turnParts(turn: number): { quarter: 0 | 90 | 180 | -90; tilt: number } {
  const quarter = normalTurn(Math.round(turn / 90) * 90) as 0 | 90 | 180 | -90;
  return { quarter, tilt: normalTurn(turn - quarter) };
}

/** Whether somebody has straightened a window: it is turned by more than quarters. */
export const isStraightened = ({ turn }: Pick<Window, 'turn'>): boolean => turnParts(turn).tilt !== 0;

/** The window of a picture that leans clockwise by some degrees, turned back by as much. A mirror comes after the turn. */
export const straightened = (window: Window, leaning: number): Window => ({
  ...window,
  turn: normalTurn(window.turn - leaning),
});

/** What one step to the right (`across`) and one step down (`down`) in the frame are on the original: unit vectors. */
export function frameAxes({ turn, mirror }: Pick<Window, 'turn' | 'mirror'>): { across: Point; down: Point } {
  const { x: cosine, y: sine } = turnVector(turn);
  const across = { x: cosine, y: -sine };
  return { across: mirror ? { x: -across.x, y: -across.y } : across, down: { x: sine, y: cosine } };
}

/**
 * How far a window of span 1 reaches from its centre along the original's axes: half its bounding box. An upright box
 * holds a turned window exactly where it holds the window's bounding box, so this is all that clamping needs.
 */
export function halfExtent(turn: number, output: Dimensions): Point {
  const { x: cosine, y: sine } = turnVector(turn);
  const [c, s] = [Math.abs(cosine), Math.abs(sine)];
  return { x: (c + s * heightOverWidth(output)) / 2, y: (s + c * heightOverWidth(output)) / 2 };
}

/** The point of the original that lies at `at`, in output pixels from the frame's top left corner. */
export function frameToOriginal(window: Window, output: Dimensions, at: Point): Point {
  const { across, down } = frameAxes(window);
  const scale = window.span / output.width;
  const x = (at.x - output.width / 2) * scale;
  const y = (at.y - output.height / 2) * scale;
  return {
    x: window.centreX + across.x * x + down.x * y,
    y: window.centreY + across.y * x + down.y * y,
  };
}

/** Where a point of the original lies in the frame, in output pixels from its top left corner. */
export function originalToFrame(window: Window, output: Dimensions, at: Point): Point {
  const { across, down } = frameAxes(window);
  const scale = output.width / window.span;
  const x = at.x - window.centreX;
  const y = at.y - window.centreY;
  return {
    x: output.width / 2 + (across.x * x + across.y * y) * scale,
    y: output.height / 2 + (down.x * x + down.y * y) * scale,
  };
}
