import type { Group } from '../model/index.ts';

/**
 * In which order pieces are uploaded: as they are read, the last first (a profile page puts the newest post at the
 * front), down the columns, or as a network lists them (reading indices from 0, the first upload first).
 */
export type PostingRule = 'as read' | 'last first' | 'down the columns' | readonly number[];

/** The rule of a network's group. */
export function postingRule(group: Group): PostingRule {
  if (group.kind === 'panels') return 'as read';
  if (group.kind === 'block') return group.postingOrder;
  return group.posting === 'last tile first' ? 'last first' : 'as read';
}

/**
 * The upload number, from 1, of every piece in reading order.
 *
 * @throws RangeError where a listed order does not name every piece once
 */
export function uploadNumbers(columns: number, rows: number, rule: PostingRule): number[] {
  const count = columns * rows;
  const indices = Array.from({ length: count }, (_, index) => index);
  if (rule === 'as read') return indices.map((index) => index + 1);
  if (rule === 'last first') return indices.map((index) => count - index);
  if (rule === 'down the columns')
    return indices.map((index) => (index % columns) * rows + Math.floor(index / columns) + 1);
  const isWhole = rule.length === count && indices.every((index) => rule.includes(index));
  if (!isWhole) throw new RangeError(`A posting order for ${count} pieces has to name each of 0 to ${count - 1} once.`);
  return indices.map((index) => rule.indexOf(index) + 1);
}
