/** By which somebody is known on a small spot: the first letters of the first and the last word of a name. */
export function initialsOf(name: string): string {
  const words = name.trim().split(/\s+/);
  const ends = words.length > 1 ? [words[0], words.at(-1)] : words;
  // By what a person sees as a letter: some are several code points.
  const segmenter = new Intl.Segmenter();
  return ends.map((word = '') => [...segmenter.segment(word)][0]?.segment.toUpperCase() ?? '').join('');
}
