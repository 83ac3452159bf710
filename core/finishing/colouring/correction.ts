/** A midtone curve and a factor on colourfulness; 1 and 1 change nothing. */
export interface Correction {
  midtones: number;
  saturation: number;
}

export const noCorrection: Correction = { midtones: 1, saturation: 1 };

const curveSteps = 4;

/** The midtone curve as a table in quarter levels: black and white stay, what lies between is lifted or lowered. */
export function curveOf({ midtones }: Correction): Float32Array {
  return Float32Array.from(
    { length: 255 * curveSteps + 1 },
    (_, at) => 255 * (at / (255 * curveSteps)) ** (1 / midtones),
  );
}

/** Between two entries of the table the curve is drawn straight, so that a curve that changes nothing does so exactly. */
export function lookUp(curve: Float32Array, level: number): number {
  if (level <= 0) return 0;
  if (level >= 255) return 255;
  const at = level * curveSteps;
  const below = at | 0;
  const low = curve[below] as number;
  return low + (at - below) * ((curve[below + 1] as number) - low);
}
