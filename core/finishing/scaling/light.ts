const decode = (encoded: number) => (encoded <= 0.040_45 ? encoded / 12.92 : ((encoded + 0.055) / 1.055) ** 2.4);
/** The encoded level (0..1) of light (0..1) (IEC 61966-2-1, sRGB). */
export const encodedLight = (light: number) =>
  light <= 0.003_130_8 ? light * 12.92 : 1.055 * light ** (1 / 2.4) - 0.055;

/** Entries of the table of light to one encoded level. */
export const lightSteps = 16;
/** Light (0..1) by encoded level in sixteenths (IEC 61966-2-1, sRGB). */
export const lightTable = Float32Array.from({ length: 255 * lightSteps + 1 }, (_, at) =>
  decode(at / (255 * lightSteps)),
);

/** Entries of the table of levels to all the light there is. */
export const levelSteps = 65_535;
/** Encoded level (0..255) by light in parts of 65,535: finer than a twentieth of a level even in the darkest shadows. */
export const levelTable = Float32Array.from({ length: levelSteps + 1 }, (_, at) => 255 * encodedLight(at / levelSteps));

/** The encoded level of light, 0..255; light outside of 0..1 counts as the nearest. */
export function levelOf(light: number): number {
  const at = Math.round(light * levelSteps);
  return levelTable[Math.min(levelSteps, Math.max(0, at))] as number;
}
