import type { FontFamily, FontFile } from '../../model/index.ts';
import type { Script } from './scripts.ts';
import type { Typeface } from './typeface.ts';

/** What is asked of a family. */
export interface Cut {
  family: string;
  weight: number;
  /** Per cent of the normal width. */
  width: number;
}

/** One file of a family, at a weight and a width that it has. */
export interface ChosenFile {
  file: FontFile;
  weight: number;
  width: number;
}

/** All fonts there are, and how one is opened. */
export interface FontBook {
  families: readonly FontFamily[];
  /** Null while the file has not been loaded. */
  open(chosen: ChosenFile): Typeface | null;
}

const within = (value: number, { least, most }: FontFile['weight']) => Math.min(most, Math.max(least, value));

/** The file of a family that comes closest: first in width, which is seen from further away, then in weight. */
export function closestFile({ files }: FontFamily, { weight, width }: Pick<Cut, 'weight' | 'width'>): ChosenFile {
  const chosen = files
    .map((file) => ({ file, weight: within(weight, file.weight), width: within(width, file.width) }))
    .sort(
      (a, b) =>
        Math.abs(a.width - width) - Math.abs(b.width - width) ||
        Math.abs(a.weight - weight) - Math.abs(b.weight - weight),
    )[0];
  if (!chosen) throw new Error('A family has at least one file.');
  return chosen;
}

/** Ids of the families that a script falls back to, the first choice first. */
const fallbacks: Record<Script, readonly string[]> = {
  Latin: ['noto-sans'],
  Greek: ['noto-sans'],
  Cyrillic: ['noto-sans'],
  other: ['noto-sans'],
  Arabic: ['noto-sans-arabic'],
  Hebrew: ['noto-sans-hebrew'],
  Devanagari: ['noto-sans-devanagari'],
  Thai: ['noto-sans-thai'],
  Japanese: ['noto-sans-jp'],
  Korean: ['noto-sans-kr'],
  Han: ['noto-sans-sc', 'noto-sans-jp'],
};

/**
 * The families in which a character is looked for, in turn: the one that was chosen, then those that its script falls back to.
 *
 * @param scripts all scripts of the text: Han characters beside Japanese or Korean ones are drawn as they are there
 */
export function familiesFor(
  { families }: Pick<FontBook, 'families'>,
  chosen: string,
  script: Script | null,
  scripts: ReadonlySet<Script>,
): FontFamily[] {
  const own = script === 'Han' ? (['Japanese', 'Korean'] as const).filter((one) => scripts.has(one)) : [];
  const ids = [chosen, ...own.flatMap((one) => fallbacks[one]), ...fallbacks[script ?? 'Latin']];
  return [...new Set(ids)].flatMap((id) => families.find((family) => family.id === id) ?? []);
}
