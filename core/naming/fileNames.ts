import { fileDimensions, type UploadSettings } from '../geometry/index.ts';
import {
  type Dimensions,
  formatExtension,
  type ImageFormat,
  type Original,
  type PieceOfWhole,
  type PlaceOfNetwork,
} from '../model/index.ts';
import { isReserved } from './reserved.ts';

/** What a name pattern may mention, in braces. */
export const patternWords = ['name', 'network', 'place', 'dimensions', 'width', 'height'] as const;
type PatternWord = (typeof patternWords)[number];

export const defaultPattern = '{name}_{network}_{place}_{dimensions}';

export interface Nameable {
  /** Base name: the original's name. */
  name: string;
  network: string;
  place: string;
  dimensions: Dimensions;
  /** Without a dot. */
  extension: string;
  /** Which piece of a picture it is: numbers in the order of uploading, with row and column where there are several of both. */
  piece?: PieceOfWhole;
}

/** What a file name is made of, for an original at a place. */
export function nameable(
  original: Pick<Original, 'name' | 'width' | 'height' | 'trim'>,
  at: PlaceOfNetwork,
  settings: UploadSettings & { format: ImageFormat },
  piece: PieceOfWhole | null = null,
): Nameable {
  return {
    name: original.name,
    network: at.network.name,
    place: at.place.name,
    dimensions: fileDimensions(at.place, original, settings),
    extension: formatExtension[settings.format],
    ...(piece ? { piece } : {}),
  };
}

/** 255 bytes is the usual bound; what is left over is room for an extension, a number and a folder. */
const longestStem = 160;

/**
 * A word as every file system takes it: lower-case ASCII letters, digits and hyphens. Accents are dropped
 * (`Drachenfüße` becomes `drachenfusse`); what has no plain letter falls away.
 */
export function fileNameWord(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/ß/g, 'ss')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
}

/** What is wrong with a name pattern, in words, or null. */
export function patternProblem(pattern: string): string | null {
  if (pattern.trim() === '') return 'A name pattern needs at least one word, such as {name}.';
  const known: readonly string[] = patternWords;
  const unknown = [...pattern.matchAll(/\{([^}]*)\}/g)]
    .map((match) => match[1] ?? '')
    .find((word) => !known.includes(word));
  if (unknown !== undefined) {
    return `{${unknown}} is not known. Known are ${patternWords.map((word) => `{${word}}`).join(', ')}.`;
  }
  if (/[{}]/.test(pattern.replace(/\{[^{}]*\}/g, ''))) return 'A brace is open or closed that has no partner.';
  return null;
}

function stem(pattern: string, item: Nameable): string {
  const values: Record<PatternWord, string> = {
    name: fileNameWord(item.name) || 'picture',
    network: fileNameWord(item.network) || 'network',
    place: fileNameWord(item.place) || 'place',
    dimensions: `${item.dimensions.width}x${item.dimensions.height}`,
    width: String(item.dimensions.width),
    height: String(item.dimensions.height),
  };
  const filled = pattern.replace(/\{([^}]*)\}/g, (_, word: PatternWord) => values[word] ?? '');
  const safe = filled
    .split(/([_.]+)/)
    .map((part, index) => (index % 2 === 1 ? part.charAt(0) : fileNameWord(part)))
    .join('')
    .replace(/^[._-]+|[._-]+$/g, '')
    .slice(0, longestStem);
  const whole = safe || 'picture';
  return isReserved(whole) ? `file-${whole}` : whole;
}

/** `_03-of-05`, padded so that names sort as they are uploaded; `_1-of-4_r1c1` where there are rows. */
function pieceSuffix({ piece }: Nameable): string {
  if (!piece) return '';
  const number = String(piece.number).padStart(String(piece.of).length, '0');
  const at = piece.rows > 1 && piece.columns > 1 ? `_r${piece.row}c${piece.column}` : '';
  return `_${number}-of-${piece.of}${at}`;
}

/**
 * File names for all items, in the order of the items: safe on every file system, no two alike even where case is
 * ignored. Those that would collide are numbered from 2, in order.
 *
 * @throws RangeError where `patternProblem` finds one
 */
export function fileNames(pattern: string, items: readonly Nameable[]): string[] {
  const problem = patternProblem(pattern);
  if (problem) throw new RangeError(problem);
  const taken = new Set<string>();
  return items.map((item) => {
    const base = `${stem(pattern, item)}${pieceSuffix(item)}`;
    let name = `${base}.${item.extension}`;
    for (let number = 2; taken.has(name); number += 1) name = `${base}-${number}.${item.extension}`;
    taken.add(name);
    return name;
  });
}
