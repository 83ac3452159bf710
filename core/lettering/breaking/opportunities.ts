/// <reference path="./linebreak.d.ts" />
import LineBreaker from 'linebreak';

/** Scripts that are written without spaces between words: UAX #14 leaves their breaks to dictionaries. */
const unspaced = /[\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]+/gu;
const words = new Intl.Segmenter('th', { granularity: 'word' });

/** Where a paragraph may be broken into lines, by UAX #14: offsets in UTF-16 units, its end the last of them. */
export function breakOpportunities(paragraph: string): number[] {
  const found = new Set<number>();
  const breaker = new LineBreaker(paragraph);
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) found.add(next.position);
  for (const { 0: part, index } of paragraph.matchAll(unspaced)) {
    for (const word of words.segment(part)) if (word.index > 0) found.add(index + word.index);
  }
  return [...found].sort((a, b) => a - b);
}
