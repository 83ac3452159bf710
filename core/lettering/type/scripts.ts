/** Scripts that have fonts of their own among the fallbacks. All others are set in what the shaper makes of them. */
const known = {
  Latin: /\p{Script=Latin}/u,
  Greek: /\p{Script=Greek}/u,
  Cyrillic: /\p{Script=Cyrillic}/u,
  Arabic: /\p{Script=Arabic}/u,
  Hebrew: /\p{Script=Hebrew}/u,
  Devanagari: /\p{Script=Devanagari}/u,
  Thai: /\p{Script=Thai}/u,
  Japanese: /[\p{Script=Hiragana}\p{Script=Katakana}]/u,
  Korean: /\p{Script=Hangul}/u,
  Han: /\p{Script=Han}/u,
  other: /[^\p{Script=Common}\p{Script=Inherited}]/u,
} as const;

export type Script = keyof typeof known;

/** The script that a character belongs to; null for one that goes with any, such as a space or a digit. */
export function scriptOf(character: string): Script | null {
  for (const [script, pattern] of Object.entries(known)) if (pattern.test(character)) return script as Script;
  return null;
}

/** Characters that are never drawn: joiners, marks of direction, variation selectors, soft hyphens. */
export const isInvisible = (character: string): boolean => /\p{Default_Ignorable_Code_Point}|\p{Cc}/u.test(character);

const graphemes = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** What people take for one character each, such as a letter with its accents, with where it begins in UTF-16 units. */
export const charactersOf = (text: string): { character: string; at: number }[] =>
  [...graphemes.segment(text)].map(({ segment, index }) => ({ character: segment, at: index }));
