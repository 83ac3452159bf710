/** Two and a half standard deviations each way hold 98.8 % of a Gaussian. */
export const blurRadius = (deviation: number): number => Math.max(1, Math.round(2.5 * deviation));

/** The right half of a Gaussian, the middle first; the whole sums to 1. @param deviation in pixels, above 0 */
export function halfGaussian(deviation: number): Float32Array {
  const half = Float32Array.from({ length: blurRadius(deviation) + 1 }, (_, at) =>
    Math.exp(-((at / deviation) ** 2) / 2),
  );
  const sum = half.reduce((total, weight, at) => total + (at === 0 ? weight : 2 * weight), 0);
  return half.map((weight) => weight / sum);
}
