import { type FontBook, pathData, setWords } from '@inkwell/core/lettering';
import type { LetterStyle } from '@inkwell/core/model';
import { UserError } from '../../userError.ts';
import type { NewPath, SvgText } from './svgTexts.ts';

/** Other words in the place of a drawing's text, as outlines. @throws UserError where no font has them, in words */
export function newPath(at: SvgText, text: string, family: string, book: FontBook): NewPath {
  if (text.trim() === '') return { at: at.at, text: '', path: '' };
  const style: LetterStyle = {
    family,
    weight: Math.min(900, Math.max(100, at.weight)),
    width: 100,
    letterSpacing: at.letterSpacing / at.size,
    lineHeight: at.lineStep / at.size,
    align: at.anchor,
    case: 'as written',
    colour: '#000000',
    otherColour: null,
    setOff: { kind: 'none' },
  };
  const { ways, missing } = setWords(text, style, book);
  const [way] = ways;
  if (!way || missing.length > 0) {
    throw new UserError(
      `No font has ${missing.length > 0 ? missing.join(', ') : 'these letters'}. Write it without, or with other characters.`,
    );
  }
  // A drawing anchors its texts from left to right, whatever they say.
  const before = { start: 0, middle: way.width / 2, end: way.width }[at.anchor];
  const turned = { start: 'end', middle: 'middle', end: 'start' } as const;
  const [left, top] = [at.x - before * at.size, at.y - (way.baselines[0] ?? 0) * at.size];
  const outline = way.outline(way.rightToLeft ? turned[at.anchor] : at.anchor);
  return { at: at.at, text, path: pathData(outline, at.size, left, top) };
}
