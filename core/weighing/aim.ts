import type { Aim, Dimensions } from '../model/index.ts';

/** A limit that leaves this many bits to every pixel is generous: no usual encoding needs as many. */
const generousBits = 3;

/** What a frame's bytes are spent on where nobody has said: where the limit is generous, no more than it needs. */
export function usualAim(budgetBytes: number, { width, height }: Dimensions): Aim {
  const bits = (budgetBytes * 8) / (width * height);
  return bits >= generousBits ? { kind: 'no heavier than it needs', level: 'flick' } : { kind: 'as good as fits' };
}
