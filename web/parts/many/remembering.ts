/**
 * Remembers what was worked out of objects that are replaced and never changed, as long as all that it follows from is the same. What was
 * worked out of something else before is forgotten.
 */
export function remembering<Key extends object, Result>() {
  const known = new WeakMap<Key, { from: readonly unknown[]; result: Result }>();
  return (key: Key, from: readonly unknown[], work: () => Result): Result => {
    const before = known.get(key);
    if (before?.from.every((each, index) => each === from[index])) return before.result;
    const result = work();
    known.set(key, { from, result });
    return result;
  };
}
