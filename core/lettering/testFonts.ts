import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import * as shaper from 'harfbuzzjs';
import type { FontFamily, LetterStyle, WordsItem } from '../model/index.ts';
import type { FontBook } from './type/fontBook.ts';
import { openTypeface } from './type/harfbuzzTypeface.ts';
import type { Typeface } from './type/typeface.ts';

const require = createRequire(import.meta.url);
const weight = 700;

/** The bytes of a family's bold file. */
export function boldFile(family: string): Uint8Array {
  const folder = join(dirname(require.resolve(`@expo-google-fonts/${family}/package.json`)), `${weight}Bold`);
  const file = readdirSync(folder).find((name) => name.endsWith('.ttf'));
  return readFileSync(join(folder, file ?? ''));
}

const familyOf = (id: string): FontFamily => ({
  id,
  name: id,
  kind: 'for tests',
  isHidden: false,
  isOwn: false,
  files: [{ id, weight: { least: weight, most: weight }, width: { least: 100, most: 100 } }],
});

/** A font book of some families that ship, all of them bold. @param loaded those whose files are there */
export function testBook(families: readonly string[], loaded: readonly string[] = families): FontBook {
  const opened = new Map<string, Typeface>();
  return {
    families: families.map(familyOf),
    open: ({ file }) => {
      if (!loaded.includes(file.id)) return null;
      const typeface = opened.get(file.id) ?? openTypeface(shaper, boldFile(file.id), { weight, width: 100 });
      opened.set(file.id, typeface);
      return typeface;
    },
  };
}

/** A style for tests: plain white letters. */
export const testStyle = (values: Partial<LetterStyle> = {}): LetterStyle => ({
  family: 'sofia-sans',
  weight,
  width: 100,
  letterSpacing: 0,
  lineHeight: 1,
  align: 'start',
  case: 'as written',
  colour: '#ffffff',
  otherColour: null,
  setOff: { kind: 'none' },
  ...values,
});

/** Words for tests: a title in the middle, on every piece. */
export const testWords = (number: number, text: string, values: Partial<WordsItem> = {}): WordsItem => ({
  id: `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`,
  name: `Words ${number}`,
  kind: 'words',
  role: 'title',
  text,
  short: '',
  style: testStyle(),
  originalIds: null,
  notOn: ['profile'],
  notOnPlaces: [],
  onPieces: 'each',
  wish: 'middle',
  wanted: 0.1,
  ...values,
});
