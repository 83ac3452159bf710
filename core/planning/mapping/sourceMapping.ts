import { intersection, type Point, type Rect, turnParts, turnVector, windowBoundingBox } from '../../geometry/index.ts';
import type { Dimensions } from '../../model/index.ts';
import { planContentArea } from '../contentArea.ts';
import type { RenderPlan } from '../renderPlan.ts';
import type { Part } from './part.ts';

/** Pixels on each side. */
export interface Margins {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** How a tilted picture is turned into the frame, in whole steps that an image library has. */
export interface Tilting {
  /** Pixels of copied edge round the field, so that its edge is not mixed with nothing. */
  rim: number;
  /** Rows of the matrix that turns the field clockwise: output = matrix * input. */
  matrix: [[number, number], [number, number]];
  /** A shift by parts of a pixel, after turning. */
  shift: Point;
  /** Where in the turned field (whose first pixel is the first of its bounding box) the frame's first pixel lies. */
  cutAt: Point;
  /** What is cut out there: the frame, at a multiple of its dimensions. */
  cut: Dimensions;
}

/**
 * The way from an original to a frame, as whole steps: an upright part of the picture is resampled; round it lie
 * margins where the window reaches past the picture, which makes the field; the field is turned and mirrored.
 */
export interface SourceMapping {
  part: Part;
  margins: Margins;
  /** Clockwise; 0 where the field is tilted, for then `tilting` turns it all the way. */
  quarter: 0 | 90 | 180 | -90;
  tilting: Tilting | null;
  mirror: boolean;
}

/** A tilted picture is turned at this many times the frame's dimensions, where the original has the pixels. */
const oversampling = 2;
/** Original pixels outside of the window that a tilted field still holds, in pixels of the field. */
const rim = 4;

export function sourceMappingOf(plan: RenderPlan): SourceMapping {
  const { quarter, tilt } = turnParts(plan.window.turn);
  return tilt === 0 ? mapUpright(plan, quarter) : mapTilted(plan);
}

const isOnSide = (quarter: number) => Math.abs(quarter) === 90;
const whole = (value: number) => Math.max(1, Math.round(value));

function mapUpright(plan: RenderPlan, quarter: SourceMapping['quarter']): SourceMapping {
  const { window } = plan;
  const contentArea = planContentArea(plan);
  const { pixels } = contentArea;
  const field = isOnSide(quarter) ? { width: pixels.height, height: pixels.width } : pixels;
  const { part, margins } = partOfField(plan, windowBoundingBox(window, contentArea.window), field);
  return { part, margins, quarter, tilting: null, mirror: window.mirror };
}

/** The part of a field, which covers `bounds` of the original, that shows the picture; the rest are margins. */
function partOfField(plan: RenderPlan, bounds: Rect, field: Dimensions): Pick<SourceMapping, 'part' | 'margins'> {
  // Without a backing the window lies on the picture, whatever roundings say: no edge may stay bare.
  if (!plan.backing) {
    const none = { left: 0, top: 0, right: 0, bottom: 0 };
    return { part: { original: plan.original, source: bounds, within: plan.picture, output: field }, margins: none };
  }
  const source = intersection(bounds, plan.picture);
  const [x, y] = [field.width / bounds.width, field.height / bounds.height];
  const { left, width } = pixelsOf((source.left - bounds.left) * x, source.width * x, field.width);
  const { left: top, width: height } = pixelsOf((source.top - bounds.top) * y, source.height * y, field.height);
  // Not the picture's own edges: what whole pixels of the field cover, so that no pixel is moved.
  const covered = {
    left: bounds.left + left / x,
    top: bounds.top + top / y,
    width: width / x,
    height: height / y,
  };
  return {
    part: { original: plan.original, source: covered, within: plan.picture, output: { width, height } },
    margins: { left, top, right: field.width - left - width, bottom: field.height - top - height },
  };
}

/**
 * The whole pixels of a line of `length` that `width` of them from `left` on come to: an edge moves by up to half a
 * pixel, and what is too narrow for that takes the pixel that holds its middle.
 */
function pixelsOf(left: number, width: number, length: number): { left: number; width: number } {
  const [first, end] = [Math.round(left), Math.round(left + width)];
  if (first < end) return { left: first, width: Math.min(end, length) - first };
  return { left: Math.min(Math.floor(left + width / 2), length - 1), width: 1 };
}

function mapTilted(plan: RenderPlan): SourceMapping {
  const { window } = plan;
  const output = planContentArea(plan).window;
  const times = Math.min(oversampling, Math.max(1, window.span / output.width));
  const cut = { width: whole(output.width * times), height: whole(output.height * times) };
  /** Pixels of the field for one original pixel. */
  const scale = cut.width / window.span;
  const around = windowBoundingBox(window, output);
  const field = { width: whole(around.width * scale), height: whole(around.height * scale) };
  const bounds = {
    left: window.centreX - field.width / scale / 2,
    top: window.centreY - field.height / scale / 2,
    width: field.width / scale,
    height: field.height / scale,
  };
  const { x: cosine, y: sine } = turnVector(window.turn);
  const turned = ({ x, y }: Point): Point => ({ x: cosine * x - sine * y, y: sine * x + cosine * y });
  const size = { width: field.width + 2 * rim, height: field.height + 2 * rim };
  // A pixel's value stands at its middle, so pixel numbers are half a pixel less than coordinates.
  const middle = turned({ x: size.width / 2 - 0.5, y: size.height / 2 - 0.5 });
  const offset = { x: cut.width / 2 - 0.5 - middle.x, y: cut.height / 2 - 0.5 - middle.y };
  const shift = { x: offset.x - Math.floor(offset.x), y: offset.y - Math.floor(offset.y) };
  const corners = [0, size.width].flatMap((x) => [0, size.height].map((y) => turned({ x, y })));
  // The library begins its output at the bounding box of the turned corners, rounded, the shift left aside.
  const first = {
    x: Math.round(Math.min(...corners.map((corner) => corner.x))),
    y: Math.round(Math.min(...corners.map((corner) => corner.y))),
  };
  return {
    ...partOfField(plan, bounds, field),
    quarter: 0,
    tilting: {
      rim,
      matrix: [
        [cosine, -sine],
        [sine, cosine],
      ],
      shift,
      cutAt: { x: -first.x - Math.floor(offset.x), y: -first.y - Math.floor(offset.y) },
      cut,
    },
    mirror: window.mirror,
  };
}
