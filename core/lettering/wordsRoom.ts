import type { Hands, Item, Lettering, WordsItem } from '../model/index.ts';
import { asWritten } from './byHand.ts';
import { type FrameOfItems, isOn } from './letterItems.ts';

/** About how wide a letter is, and how far two lines lie apart, in em. */
const letter = { width: 0.55, wide: 1, line: 1.15 } as const;
/** Scripts whose letters are as wide as they are high. */
const wide = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/u;

/** About the area of words, in squares of a frame's shorter side. */
function areaOf({ text, wanted }: WordsItem): number {
  const width = [...text].reduce((sum, one) => sum + (wide.test(one) ? letter.wide : letter.width), 0);
  return width * letter.line * wanted ** 2;
}

/**
 * The room that a frame's first words ask for, with what stands under them, in squares of its shorter side: what its window can make
 * free for them. 0 where it has no words, or a hand has put them somewhere. No font is needed to say so, so a window never waits for one.
 */
export function wordsRoom(lettering: Lettering, hands: Hands, frame: FrameOfItems): number {
  const items = lettering.filter((item) => isOn(item, frame) && !hands[item.id]?.isOff && !hands[item.id]?.stand);
  const from = items.findIndex(({ kind }) => kind === 'words');
  const isUnder = ({ wish }: Item) => wish === 'under the words before';
  const end = items.findIndex((item, at) => at > from && !isUnder(item));
  return items.slice(Math.max(0, from), end < 0 ? undefined : end).reduce((sum, item) => {
    const written = asWritten(item, hands[item.id]);
    return written.kind === 'words' ? sum + areaOf(written) : sum;
  }, 0);
}
