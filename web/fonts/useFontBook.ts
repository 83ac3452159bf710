import { type ChosenFile, type FontBook, setWords } from '@inkwell/core/lettering';
import type { Lettering } from '@inkwell/core/model';
import { useEffect, useMemo } from 'react';
import { useStore } from 'zustand';
import { loadFonts, openBook, pageFonts } from './pageFonts.ts';

/** The font files that items cannot be set without, and that are not loaded yet. */
function filesFor(items: Lettering, book: FontBook): ChosenFile[] {
  const words = items.filter((item) => item.kind === 'words');
  return words.flatMap(({ text, short, style }) =>
    [text, short].filter((one) => one.trim() !== '').flatMap((one) => setWords(one, style, book).toLoad),
  );
}

/** So long after fonts did not come they are asked for again. */
const againMs = 4000;

/** The fonts that items are set in; null while they come. Without words there is nothing to wait for. */
export function useFontBook(items: Lettering): FontBook | null {
  const book = useStore(pageFonts, (state) => state.book);
  const failed = useStore(pageFonts, (state) => state.failed);
  const toLoad = useMemo(() => (book ? filesFor(items, book) : []), [items, book]);
  const isWanted = items.length > 0;
  useEffect(() => {
    if (!isWanted) return;
    const ask = () => {
      const asked = book ? loadFonts(toLoad) : openBook();
      asked.catch(() => pageFonts.setState({ failed: true }));
    };
    if (failed) {
      const timer = setTimeout(() => pageFonts.setState({ failed: false }), againMs);
      return () => clearTimeout(timer);
    }
    if (!book || toLoad.length > 0) ask();
  }, [isWanted, book, toLoad, failed]);
  return book && toLoad.length === 0 ? book : null;
}
