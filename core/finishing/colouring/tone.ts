import type { Tone } from '../../model/index.ts';
import { type Histogram, percentile } from '../../seeing/index.ts';

/** What becomes black and white in each channel, red first, in levels; and how far midtones are lifted, 1 not at all. */
export interface TonePoints {
  black: [number, number, number];
  white: [number, number, number];
  midtones: number;
}

export const noTone: TonePoints = { black: [0, 0, 0], white: [255, 255, 255], midtones: 1 };

/** Black and white are never pulled nearer to each other than this: a fog of few levels stays a fog. */
const leastSpan = 64;
/** The paper of a scan is lighter than this. */
const darkestPaper = 96;
/** What is darker than the paper by this part of the way to black is a line, and none of it may become white. */
const lineDepth = 0.18;
/** Of a scan so much may be clipped to black: the middle of the darkest lines. */
const paperClip = 0.001;

/** The points that a tone asks for, on the histogram of the picture that they are meant for. */
export function tonePoints(tone: Tone, histogram: Histogram): TonePoints {
  switch (tone.kind) {
    case 'as it is':
      return noTone;
    case 'by hand':
      return { black: three(tone.black), white: three(tone.white), midtones: tone.midtones };
    case 'automatic':
      return automaticPoints(histogram, tone.clip);
    case 'paper':
      return paperPoints(histogram);
  }
}

const three = (value: number): [number, number, number] => [value, value, value];

/** The same points for all channels, so that colours keep their hue: `clip` of the pixels fall outside at each end. */
function automaticPoints({ luminance, pixels }: Histogram, clip: number): TonePoints {
  if (pixels === 0) return noTone;
  const [black, white] = [percentile(luminance, clip), percentile(luminance, 1 - clip)];
  const missing = Math.max(0, leastSpan - (white - black)) / 2;
  return { black: three(Math.max(0, black - missing)), white: three(Math.min(255, white + missing)), midtones: 1 };
}

/**
 * The paper is the highest peak among the light levels of each channel. What is as light as the paper or lighter becomes
 * white, and as much of the paper's own unevenness as is no line: half of the paper lies below its peak.
 */
function paperPoints(histogram: Histogram): TonePoints {
  if (histogram.pixels === 0) return noTone;
  const peaks = [histogram.red, histogram.green, histogram.blue].map(paperLevel);
  if (peaks.some((peak) => peak === null)) return automaticPoints(histogram, paperClip);
  const whites = [histogram.red, histogram.green, histogram.blue].map((counts, index) => {
    const peak = peaks[index] ?? 255;
    return Math.max(leastSpan, Math.max(peak * (1 - lineDepth), peak - unevenness(counts, peak)));
  });
  const black = Math.min(percentile(histogram.luminance, paperClip), Math.min(...whites) - leastSpan);
  const [red = 255, green = 255, blue = 255] = whites;
  return { black: three(Math.max(0, black)), white: [red, green, blue], midtones: 1 };
}

/** The most frequent light level, looked for on a histogram smoothed over five levels; null where nothing is light. */
function paperLevel(counts: readonly number[]): number | null {
  let best: { level: number; sum: number } | null = null;
  for (let level = darkestPaper; level < 256; level += 1) {
    const sum = counts.slice(Math.max(0, level - 2), level + 3).reduce((total, count) => total + count, 0);
    if (sum > 0 && (!best || sum > best.sum)) best = { level, sum };
  }
  return best?.level ?? null;
}

/** How far below its peak the paper reaches: two standard deviations, measured on the side above it, where no line is. */
function unevenness(counts: readonly number[], peak: number): number {
  let [squares, pixels] = [0, 0];
  for (let level = peak; level < 256; level += 1) {
    const count = counts[level] ?? 0;
    squares += count * (level - peak) ** 2;
    pixels += count;
  }
  return pixels === 0 ? 0 : 2 * Math.sqrt(squares / pixels);
}
