/** The value that lies nearest to another, the first of two that lie as near. @throws RangeError where there is none */
export function nearest(values: readonly number[], to: number): number {
  const [first] = values;
  if (first === undefined) throw new RangeError('nearest: at least one value is needed.');
  return values.reduce((near, value) => (Math.abs(value - to) < Math.abs(near - to) ? value : near), first);
}
