/** Encoded levels are looked up in steps of a sixteenth. */
const steps = 16;
const lights = 65_535;

const decode = (encoded: number) => (encoded <= 0.040_45 ? encoded / 12.92 : ((encoded + 0.055) / 1.055) ** 2.4);
const encode = (light: number) => (light <= 0.003_130_8 ? light * 12.92 : 1.055 * light ** (1 / 2.4) - 0.055);

/** Light (0..1) by encoded level in sixteenths (IEC 61966-2-1, sRGB). */
const lightTable = Float32Array.from({ length: 255 * steps + 1 }, (_, at) => decode(at / (255 * steps)));
/** Encoded level (0..255) by light in parts of 65,535: finer than a twentieth of a level even in the darkest shadows. */
const levelTable = Float32Array.from({ length: lights + 1 }, (_, at) => 255 * encode(at / lights));

/** The light of an encoded level, 0..1; levels outside of 0..255 count as the nearest. */
export function lightOf(level: number): number {
  const at = (level * steps + 0.5) | 0;
  return lightTable[at < 0 ? 0 : Math.min(at, 255 * steps)] as number;
}

/** The encoded level of light, 0..255; light outside of 0..1 counts as the nearest. */
export function levelOf(light: number): number {
  const at = (light * lights + 0.5) | 0;
  return levelTable[at < 0 ? 0 : Math.min(at, lights)] as number;
}
