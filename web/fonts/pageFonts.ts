import { type ChosenFile, type FontBook, openTypeface, type Shaper, type Typeface } from '@inkwell/core/lettering';
import type { FontFamily } from '@inkwell/core/model';
import { createStore } from 'zustand';
import { askFamilies, fontBytes } from '../api/library/fonts.ts';

/** The fonts that this page has loaded. Every file that comes makes a new book, so that what was set without it is set again. */
export const pageFonts = createStore<{ book: FontBook | null; failed: boolean }>(() => ({ book: null, failed: false }));

const typefaces = new Map<string, Typeface>();
const coming = new Map<string, Promise<void>>();
const keyOf = ({ file, weight, width }: ChosenFile) => `${file.id} ${weight} ${width}`;

let shaper: Promise<Shaper> | null = null;
let families: Promise<readonly FontFamily[]> | null = null;

/** Tried again by whoever asks next. */
function forgetting<Value>(promise: Promise<Value>, forget: () => void): Promise<Value> {
  return promise.catch((error: unknown) => {
    forget();
    throw error;
  });
}

const bookOf = (all: readonly FontFamily[]): FontBook => ({
  families: all,
  open: (chosen) => typefaces.get(keyOf(chosen)) ?? null,
});

/** Makes sure that the page knows which fonts there are. */
export async function openBook(): Promise<void> {
  families ??= forgetting(askFamilies(), () => {
    families = null;
  });
  const all = await families;
  if (!pageFonts.getState().book) pageFonts.setState({ book: bookOf(all), failed: false });
}

/** Asks anew which fonts there are: one was added or put aside. */
export async function askAgain(): Promise<void> {
  families = forgetting(askFamilies(), () => {
    families = null;
  });
  pageFonts.setState({ book: bookOf(await families), failed: false });
}

/** Loads font files, each once. */
export async function loadFonts(files: readonly ChosenFile[]): Promise<void> {
  shaper ??= forgetting(import('harfbuzzjs'), () => {
    shaper = null;
  });
  const opener = await shaper;
  const load = async (chosen: ChosenFile) => {
    const bytes = await fontBytes(chosen.file.id);
    typefaces.set(keyOf(chosen), openTypeface(opener, bytes, chosen));
  };
  await Promise.all(
    files.map((chosen) => {
      const key = keyOf(chosen);
      const under = coming.get(key) ?? forgetting(load(chosen), () => coming.delete(key));
      coming.set(key, under);
      return under;
    }),
  );
  const { book } = pageFonts.getState();
  if (book) pageFonts.setState({ book: bookOf(book.families), failed: false });
}
