import type { Plane } from '../../planes/index.ts';

/** A plane blurred by binomial weights, which takes the edge off its grain. */
export function softened({ data, width, height }: Plane): Plane {
  const weights = [70, 56, 28, 8, 1].map((weight) => weight / 256);
  const blurred = (from: ArrayLike<number>, step: number, length: number, lines: number, between: number) => {
    const to = new Float32Array(from.length);
    for (let line = 0; line < lines; line += 1) {
      for (let at = 0; at < length; at += 1) {
        let sum = 0;
        for (let away = -4; away <= 4; away += 1) {
          const within = Math.min(length - 1, Math.max(0, at + away));
          sum += (weights[Math.abs(away)] as number) * (from[line * between + within * step] as number);
        }
        to[line * between + at * step] = sum;
      }
    }
    return to;
  };
  return { data: blurred(blurred(data, 1, width, height, width), width, height, width, 1), width, height };
}

/** The same picture with its rows as columns. */
export function transposed({ data, width, height }: Plane): Plane {
  const turned = new Float32Array(data.length);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) turned[x * height + y] = data[y * width + x] as number;
  }
  return { data: turned, width: height, height: width };
}
