import { bytesOf, formatLimit, unitSaid, type WeightUnit } from '@inkwell/core/model';

const range = (from: number, to: number, step: number) =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, at) => from + at * step);

/** The leading digits of round numbers, the finest choice first. */
const leadingDigits = [
  range(1, 9.9, 0.1),
  range(1, 9.8, 0.2),
  range(1, 9.5, 0.5),
  [1, 2, 3, 5],
  [1, 2, 5],
  [1, 3],
  [1],
];

/**
 * Weights for the marks of a logarithmic axis, ascending: round in the unit in which each is said, as many as are
 * allowed.
 * @param from bytes, above 0
 * @param most at least 1
 */
export function weightTicks(from: number, to: number, unit: WeightUnit, most: number): number[] {
  const units: WeightUnit[] = unit === 'kB' ? ['kB'] : ['kB', unit];
  const ticksOf = (digits: number[]) =>
    units.flatMap((one) =>
      range(-3, 6, 1)
        .flatMap((power) => digits.map((digit) => bytesOf(digit * 10 ** power, one)))
        .filter((bytes) => bytes >= from && bytes <= to && unitSaid(bytes, unit) === one),
    );
  // 100 kB and 0.1 MiB would stand on each other.
  const apart = (ticks: number[]) =>
    ticks.filter((bytes, at) => {
      const next = ticks[at + 1];
      return next === undefined || unitSaid(bytes, unit) === unitSaid(next, unit) || next > bytes * 1.2;
    });
  const choices = leadingDigits.map((digits) => apart(ticksOf(digits)));
  return choices.find((ticks) => ticks.length <= most) ?? choices.at(-1)?.slice(-most) ?? [];
}

/** A round weight without the zeros that a measured one has: `2 MiB`, `500 kB`. */
export const tickWords = (bytes: number, unit: WeightUnit): string =>
  formatLimit({ bytes, unit: unitSaid(bytes, unit) });
