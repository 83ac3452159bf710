/** Contrast that words need, and from how many CSS pixels to an em less is enough (WCAG 2.2, 1.4.3: 18 and, in bold, 14 points). */
const needed = { small: 4.5, large: 3 } as const;
const large = { em: 24, bold: 18.66, weight: 700 } as const;

/** Contrast ratio that words of a size need. @param em in CSS pixels @param weight of the font, 1..1000 */
export function contrastNeeded(em: number, weight: number): number {
  const isLarge = em >= large.em || (weight >= large.weight && em >= large.bold);
  return isLarge ? needed.large : needed.small;
}
