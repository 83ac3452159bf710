/** The last number of a text that stands by itself: no part of a date, a ratio or a decimal. */
const lastNumber = /^(.*?)(?<![\d.,:/-])(\d{1,9})(?![\d.,:/-]*\d)(\D*)$/s;

/** A text with its last number counted up, as many digits wide; null where it has none. */
export function countedUp(text: string): string | null {
  const [, before = '', number, after = ''] = lastNumber.exec(text) ?? [];
  if (number === undefined) return null;
  return `${before}${String(Number(number) + 1).padStart(number.length, '0')}${after}`;
}

/** What the project after another is called: “Episode 12” is followed by “Episode 13”, and “Festival week” by “Festival week 2”. */
export const nextName = (name: string, longest: number): string => {
  const next = countedUp(name);
  return next !== null && next.length <= longest ? next : `${name.slice(0, longest - 2)} 2`;
};
