/** Light that a level of 255 stands for, 0..1 (IEC 61966-2-1). */
export const lightOf = (level: number): number => {
  const value = Math.min(255, Math.max(0, level)) / 255;
  return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
};

/** Red, green and blue of a colour `#rrggbb`, of 255. */
export const levelsOf = (colour: string): [number, number, number] => {
  const number = Number.parseInt(colour.slice(1), 16);
  return [number >> 16, (number >> 8) & 255, number & 255];
};

/** Relative luminance of a colour, 0..1 (WCAG 2.2). */
export function relativeLuminance([red, green, blue]: readonly [number, number, number]): number {
  return 0.2126 * lightOf(red) + 0.7152 * lightOf(green) + 0.0722 * lightOf(blue);
}

/** The contrast ratio of two relative luminances, 1..21 (WCAG 2.2). */
export function contrastRatio(a: number, b: number): number {
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}

/** One colour laid over another. */
export const over = (
  colour: readonly [number, number, number],
  opacity: number,
  under: readonly [number, number, number],
): [number, number, number] => [
  colour[0] * opacity + under[0] * (1 - opacity),
  colour[1] * opacity + under[1] * (1 - opacity),
  colour[2] * opacity + under[2] * (1 - opacity),
];

/** Black or white, whichever is farther from a colour: its contrast is at least the root of 21, which is 4.58. */
export function farthestFrom(colour: string): '#000000' | '#ffffff' {
  const own = relativeLuminance(levelsOf(colour));
  return contrastRatio(own, 0) >= contrastRatio(own, 1) ? '#000000' : '#ffffff';
}
