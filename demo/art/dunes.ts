import { createNoise2D } from 'simplex-noise';
import { between, seeded } from './random.ts';
import { cloudy } from './texture.ts';

/** A line of dunes across the picture: its height at x, in pixels from the top. */
export function ridge(seed: number, base: number, swing: number, wavelength: number): (x: number) => number {
  const noise = createNoise2D(seeded(seed));
  return (x) => base - swing * cloudy(noise, x / wavelength, 0.5, 4);
}

/** Everything under a ridge, filled. */
export function duneSvg(line: (x: number) => number, width: number, height: number, fill: string): string {
  const step = width / 240;
  let path = `M0,${height}`;
  for (let x = 0; x <= width + step; x += step) path += `L${x.toFixed(0)},${line(x).toFixed(1)}`;
  return `<path d="${path}L${width},${height}Z" fill="${fill}"/>`;
}

/** Blades of dune grass rooted along a ridge, bent by the wind from the left. */
export function grassSvg(
  seed: number,
  line: (x: number) => number,
  width: number,
  options: { clumps: number; length: number; depth: number; colours: string[] },
): string {
  const random = seeded(seed);
  const blades: string[] = [];
  for (let clump = 0; clump < options.clumps; clump += 1) {
    const middle = random() * width;
    const size = between(random, 0.5, 1.2);
    const down = random() ** 2 * options.depth;
    const count = 14 + Math.floor(random() * 22);
    for (let blade = 0; blade < count; blade += 1) {
      const x = middle + (random() - 0.5) * options.length * 0.9 * size;
      const y = line(x) + down + random() * options.length * 0.12;
      const long = options.length * size * between(random, 0.45, 1.1);
      const bend = long * between(random, 0.1, 0.75);
      const colour = options.colours[Math.floor(random() * options.colours.length)] ?? '#6b6a3c';
      const thick = (options.length / 70) * between(random, 0.5, 1.2);
      blades.push(
        `<path d="M${x.toFixed(1)},${y.toFixed(1)}q${(bend * 0.15).toFixed(1)},${(-long * 0.6).toFixed(1)} ${bend.toFixed(1)},${(-long).toFixed(1)}" stroke="${colour}" stroke-width="${thick.toFixed(2)}"/>`,
      );
    }
  }
  return `<g fill="none" stroke-linecap="round">${blades.join('')}</g>`;
}
