import type { LetterStyle } from '../model/index.ts';
import { contrastRatio, levelsOf, over, relativeLuminance } from './contrast.ts';
import type { Under } from './layout/frameGround.ts';

/** Contrast that small words need (WCAG 2.2, 1.4.3). */
export const enough = 4.5;
/** The share of the levels that lie further from their mean than so many standard deviations is a tenth at each end. */
const worstTenth = 1.28;

/** Contrast of words with the worst tenth of what lies under them. */
function contrastOn(colour: string, { light, spread }: Under): number {
  const own = relativeLuminance(levelsOf(colour));
  return Math.min(
    ...[-1, 1].map((side) => {
      const level = light + side * worstTenth * spread;
      return contrastRatio(own, relativeLuminance([level, level, level]));
    }),
  );
}

/** What lies right round the letters, once they are set off from the picture. */
function setOffFrom({ setOff }: Pick<LetterStyle, 'setOff'>, under: Under): Under {
  if (setOff.kind === 'none') return under;
  const { light } = under;
  // A shadow is soft: right at the letters it is about so much of its opacity.
  const opacity = setOff.kind === 'outline' ? 1 : setOff.opacity * (setOff.kind === 'shadow' ? 0.6 : 1);
  const levels = over(levelsOf(setOff.colour), opacity, [light, light, light]);
  return { light: 0.2126 * levels[0] + 0.7152 * levels[1] + 0.0722 * levels[2], spread: under.spread * (1 - opacity) };
}

/** The colour of a style that is better told from what lies under it. */
export function colourOn(style: LetterStyle, under: Under): { colour: string; contrast: number } {
  const ground = setOffFrom(style, under);
  const own = { colour: style.colour, contrast: contrastOn(style.colour, ground) };
  if (!style.otherColour) return own;
  const other = { colour: style.otherColour, contrast: contrastOn(style.otherColour, ground) };
  return other.contrast > own.contrast && own.contrast < enough ? other : own;
}
