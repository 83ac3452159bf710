/** What PostgreSQL cannot hold in a text: the character U+0000, and halves of surrogate pairs. */
const unstorable = /\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;
const allUnstorable = new RegExp(unstorable, 'g');

export const isStorable = (text: string): boolean => !unstorable.test(text);

/** A text from a file, without what cannot be stored: nobody typed it, so nobody is asked. */
export const storable = (text: string): string => text.replace(allUnstorable, '');

/** Whether every text in a value, names of its fields included, can be stored. */
export function isAllStorable(value: unknown): boolean {
  if (typeof value === 'string') return isStorable(value);
  if (Array.isArray(value)) return value.every(isAllStorable);
  if (value === null || typeof value !== 'object') return true;
  return Object.entries(value).every(([name, inner]) => isStorable(name) && isAllStorable(inner));
}
