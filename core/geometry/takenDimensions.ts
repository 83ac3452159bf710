import { type Dimensions, frameBounds, type Place, ratioWords, sidesWords } from '../model/index.ts';
import { type Picture, pictureBox } from './dimensions.ts';
import { clamp } from './rect.ts';

/** What of a place says which dimensions its files may have. */
export type TakenDimensions = Pick<Place, 'width' | 'height' | 'otherDimensions' | 'multipleOf' | 'mostPixels'>;

/** Whether a place leaves something to choose about the dimensions of its files. */
export const takesSeveral = ({ height, otherDimensions }: TakenDimensions): boolean =>
  typeof height !== 'number' || otherDimensions !== undefined;

/** Why a file of some dimensions is not what a place takes, in words; null where it is. */
export function dimensionsProblem(place: TakenDimensions & Pick<Place, 'name'>, file: Dimensions): string | null {
  const { name, multipleOf = 1, mostPixels } = place;
  if (file.width % multipleOf !== 0 || file.height % multipleOf !== 0) {
    return `${name} takes sides that are divisible by ${multipleOf}; ${sidesWords(file)} are not.`;
  }
  if (mostPixels !== undefined && file.width * file.height > mostPixels) {
    const [has, most] = [file.width * file.height, mostPixels].map((pixels) => pixels.toLocaleString('en'));
    return `${name} takes at most ${most} pixels; ${sidesWords(file)} are ${has}.`;
  }
  return sidesProblem(place, file);
}

function sidesProblem(place: TakenDimensions & Pick<Place, 'name'>, file: Dimensions): string | null {
  const { name, width, height, otherDimensions: other } = place;
  if (typeof height !== 'number') {
    if (file.width !== width) return `${name} is ${width} px wide; ${file.width} px were asked for.`;
    if (file.height >= height.min && file.height <= height.max) return null;
    return `${name} is from ${height.min} to ${height.max} px high; ${file.height} px were asked for.`;
  }
  if (file.width === width && file.height === height) return null;
  if (!other) return `${name} is ${sidesWords({ width, height })}; it takes no other dimensions.`;
  if (other.kind === 'list') {
    const isNamed = other.dimensions.some((one) => one.width === file.width && one.height === file.height);
    if (isNamed) return null;
    const taken = [{ width, height }, ...other.dimensions].map(sidesWords).join(', ');
    return `${name} takes ${taken}; ${sidesWords(file)} were asked for.`;
  }
  const { least, most, leastSide, mostSide } = other;
  if (Math.min(file.width, file.height) < leastSide || Math.max(file.width, file.height) > mostSide) {
    return `${name} takes sides from ${leastSide} to ${mostSide} px; ${sidesWords(file)} were asked for.`;
  }
  if (isRatioWithin(file, least, most)) return null;
  return (
    `${name} takes ratios from ${ratioWords(least)} to ${ratioWords(most)}, the width by the height; ` +
    `${sidesWords(file)} are ${ratioWords(file.width / file.height)}.`
  );
}

/** Sides are whole pixels: half of one more or less may be what made the ratio another one. */
const isRatioWithin = ({ width, height }: Dimensions, least: number, most: number): boolean =>
  (width + 0.5) / (height - 0.5) >= least && (width - 0.5) / (height + 0.5) <= most;

/** So many ratios of a range are looked at, the ends among them. */
const ratiosTried = 9;

/** As wide as the place wishes for, where its other rules allow that: what comes nearest to a ratio. */
function dimensionsAt(place: TakenDimensions, ratio: number, leastSide: number, mostSide: number): Dimensions {
  const { multipleOf = 1, mostPixels = frameBounds.pixels } = place;
  const shortest = ratio >= 1 ? leastSide * ratio : leastSide;
  const longest = Math.min(ratio >= 1 ? mostSide : mostSide * ratio, Math.sqrt(mostPixels * ratio));
  const width = Math.max(shortest, Math.min(place.width, longest));
  const inSteps = (side: number) => {
    const [least, most] = [Math.ceil(leastSide / multipleOf), Math.floor(mostSide / multipleOf)];
    return clamp(Math.round(side / multipleOf), Math.min(least, most), most) * multipleOf;
  };
  const across = inSteps(width);
  return { width: across, height: inSteps(across / ratio) };
}

/**
 * The dimensions among which a picture's frame may choose, those that the place wishes for first: all of a list, or of a range of ratios
 * that of the picture, both ends and some between. Every one is taken by the place.
 */
export function dimensionsToChoose(place: TakenDimensions & Pick<Place, 'name'>, picture: Picture): Dimensions[] {
  const { width, height, otherDimensions: other } = place;
  if (typeof height !== 'number' || !other) return [];
  const wished = { width, height };
  if (other.kind === 'list') return distinct([wished, ...other.dimensions]);
  const { least, most, leastSide, mostSide } = other;
  const box = pictureBox(picture);
  const steps = Array.from({ length: ratiosTried }, (_, step) => least * (most / least) ** (step / (ratiosTried - 1)));
  const ratios = [clamp(box.width / box.height, least, most), ...steps];
  const tried = ratios.map((ratio) => dimensionsAt(place, ratio, leastSide, mostSide));
  return distinct([wished, ...tried.filter((one) => dimensionsProblem(place, one) === null)]);
}

const distinct = (all: readonly Dimensions[]): Dimensions[] =>
  all.filter((one, at) => all.findIndex((each) => each.width === one.width && each.height === one.height) === at);
