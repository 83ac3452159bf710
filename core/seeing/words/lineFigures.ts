import type { Plane } from '../../planes/index.ts';
import type { Letter } from './letters.ts';
import type { TextLine } from './textLines.ts';

/** What tells a row of letters from a row of leaves, bricks or windows. */
export interface LineFigures {
  /** How much of all difference within its box is the difference between two levels, 0..1 (Otsu 1979). */
  twoLevels: number;
  /** Levels between letters and ground. */
  contrast: number;
  /** How much the strokes and the heights of its letters differ: their standard deviation over their mean. */
  strokes: number;
  heights: number;
  /** How far their feet are from one line, in heights, and how much that line leans, in degrees. */
  stray: number;
  lean: number;
  /** The part of their boxes that letters fill, and how much that and their proportions differ. */
  fill: number;
  shapes: number;
  /** The width of a stroke, in heights. */
  stroke: number;
  /** The usual gap from one letter to the next, in heights. */
  gap: number;
}

/** Measures a row of letters. @param levels the picture's luminance, 0..255 */
export function lineFigures(line: TextLine, levels: Plane): LineFigures {
  const { letters, height } = line;
  const fills = letters.map((one) => one.area / (one.width * one.height));
  const strokes = letters.map(({ stroke }) => stroke);
  const heights = letters.map((one) => one.height);
  const { stray, lean } = footLine(letters);
  return {
    twoLevels: twoLevels(line, levels),
    contrast: Math.abs(
      mean(letters.map(({ colour }) => mean(colour))) - mean(letters.map(({ around }) => mean(around))),
    ),
    strokes: deviation(strokes) / mean(strokes),
    heights: deviation(heights) / mean(heights),
    stray: stray / height,
    lean,
    fill: mean(fills),
    shapes: Math.max(deviation(fills), deviation(letters.map((one) => one.width / one.height)) / 2),
    stroke: mean(strokes) / height,
    gap: usualGap(letters) / height,
  };
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
const deviation = (values: readonly number[]) => Math.sqrt(mean(values.map((value) => (value - mean(values)) ** 2)));

/** The median of the gaps between letters that follow each other; 0 of a single one. */
function usualGap(letters: readonly Letter[]): number {
  const gaps = letters
    .slice(1)
    .map((one, at) => one.left - (letters[at] as Letter).left - (letters[at] as Letter).width);
  return gaps.sort((a, b) => a - b)[gaps.length >> 1] ?? 0;
}

/** The line through the feet of letters, by least squares. */
function footLine(letters: readonly Letter[]): { stray: number; lean: number } {
  const feet = letters.map((one) => ({ x: one.left + one.width / 2, y: one.top + one.height }));
  const [x, y] = [mean(feet.map((foot) => foot.x)), mean(feet.map((foot) => foot.y))];
  const along = feet.reduce((sum, foot) => sum + (foot.x - x) ** 2, 0);
  const slope = along === 0 ? 0 : feet.reduce((sum, foot) => sum + (foot.x - x) * (foot.y - y), 0) / along;
  return {
    stray: mean(feet.map((foot) => Math.abs(foot.y - y - slope * (foot.x - x)))),
    lean: (Math.atan(slope) * 180) / Math.PI,
  };
}

function twoLevels(line: TextLine, { data, width, height }: Plane): number {
  const counts = new Float64Array(256);
  let [all, total, squares] = [0, 0, 0];
  for (let y = Math.max(0, line.top - 1); y < Math.min(height, line.bottom + 1); y += 1) {
    for (let x = Math.max(0, line.left - 1); x < Math.min(width, line.right + 1); x += 1) {
      const level = Math.round(data[y * width + x] as number);
      counts[level] = (counts[level] as number) + 1;
      all += 1;
      total += level;
      squares += level * level;
    }
  }
  const variance = squares / all - (total / all) ** 2;
  let [best, below, sum] = [0, 0, 0];
  for (let level = 0; level < 255; level += 1) {
    below += counts[level] as number;
    sum += level * (counts[level] as number);
    if (below === 0 || below === all) continue;
    const apart = sum / below - (total - sum) / (all - below);
    best = Math.max(best, (below / all) * (1 - below / all) * apart * apart);
  }
  return variance < 1 ? 0 : best / variance;
}
