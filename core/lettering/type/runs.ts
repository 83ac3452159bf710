import bidiFactory from 'bidi-js';
import { type ChosenFile, type Cut, closestFile, type FontBook, familiesFor } from './fontBook.ts';
import { charactersOf, isInvisible, type Script, scriptOf } from './scripts.ts';
import type { Typeface } from './typeface.ts';

/** A part of a text that one font shapes in one go. */
export interface Run {
  /** In UTF-16 units, the end exclusive. */
  start: number;
  end: number;
  /** Embedding level of the bidirectional algorithm (UAX #9): odd runs from right to left. */
  level: number;
  typeface: Typeface;
}

/** A text as it is set in fonts. */
export interface Itemized {
  runs: Run[];
  /** Whether the paragraph as a whole runs from right to left. */
  rightToLeft: boolean;
  /** Names of families that it falls back to for letters which the chosen one lacks. */
  fallbacks: string[];
  /** Characters that no font has. */
  missing: string[];
  /** Files that have to be loaded before more can be said. */
  toLoad: ChosenFile[];
}

const bidi = bidiFactory();

/** Cuts one paragraph into runs of one font, one script and one direction, in the order in which it is read. */
export function itemize(text: string, cut: Cut, book: FontBook): Itemized {
  const { levels, paragraphs } = bidi.getEmbeddingLevels(text);
  const characters = charactersOf(text);
  const scripts = new Set(characters.flatMap(({ character }) => scriptOf(character) ?? []));
  const [fallbacks, missing, toLoad] = [new Set<string>(), new Set<string>(), new Map<string, ChosenFile>()];

  const typefaceFor = (character: string, script: Script | null): Typeface | null => {
    const codes = [...character].filter((one) => !isInvisible(one)).map((one) => one.codePointAt(0) as number);
    for (const [at, family] of familiesFor(book, cut.family, script, scripts).entries()) {
      const chosen = closestFile(family, cut);
      const typeface = book.open(chosen);
      if (!typeface) {
        toLoad.set(chosen.file.id, chosen);
        return null;
      }
      if (codes.some((code) => !typeface.has(code))) continue;
      if (at > 0 || family.id !== cut.family) fallbacks.add(family.name);
      return typeface;
    }
    if (/\S/u.test(character)) missing.add(character);
    return null;
  };

  const runs: Run[] = [];
  let script: Script | null = [...scripts][0] ?? null;
  for (const { character, at } of characters) {
    const last: Run | undefined = runs.at(-1);
    const level = levels[at] ?? 0;
    const changes = scriptOf(character) !== null && scriptOf(character) !== script;
    script = scriptOf(character) ?? script;
    const before = last?.end === at && follows(character, last.typeface) ? last.typeface : null;
    const typeface = before ?? typefaceFor(character, script);
    if (!typeface) continue;
    const end = at + character.length;
    if (!changes && last?.end === at && last.level === level && last.typeface === typeface) last.end = end;
    else runs.push({ start: at, end, level, typeface });
  }
  return {
    runs,
    rightToLeft: ((paragraphs[0]?.level ?? 0) & 1) === 1,
    fallbacks: [...fallbacks],
    missing: [...missing],
    toLoad: [...toLoad.values()],
  };
}

/** Whether a character is set as what stands before it is: spaces and punctuation go with their words, what is not drawn with anything. */
function follows(character: string, before: Typeface): boolean {
  const visible = [...character].filter((one) => !isInvisible(one));
  return visible.every((one) => /[\p{Z}\p{P}]/u.test(one) && before.has(one.codePointAt(0) as number));
}

/** The runs of one line from left to right (rule L2 of UAX #9): from the highest level down, what is at or over it is turned round. */
export function visualOrder(runs: readonly Run[]): Run[] {
  const order = [...runs];
  const highest = Math.max(0, ...order.map(({ level }) => level));
  for (let level = highest; level > 0; level -= 1) {
    for (let from = 0; from < order.length; from += 1) {
      let to = from;
      while (to < order.length && (order[to] as Run).level >= level) to += 1;
      if (to > from + 1) order.splice(from, to - from, ...order.slice(from, to).reverse());
      from = Math.max(from, to);
    }
  }
  return order;
}
