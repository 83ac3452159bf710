import type { Lettered, MovedProblem } from '../../lettering/index.ts';
import { type Finding, type Hand, type Hands, type Item, withHand } from '../../model/index.ts';
import type { LetteredFrame } from '../../planning/index.ts';

/** What a hand could do with an item, in the words of a button. */
export interface Way {
  label: string;
  hand: Partial<Hand>;
}

/** The first of some ways after which a problem of an item is gone and nothing else is worse than before. */
export function firstThatHelps(
  lettered: LetteredFrame,
  hands: Hands,
  problem: Pick<MovedProblem, 'item'> & { kind?: MovedProblem['kind'] },
  ways: readonly Way[],
): Finding['fix'] | undefined {
  for (const { label, hand } of ways) {
    const next = withHand(hands, problem.item.id, hand);
    if (isRight(lettered.again(next), lettered, problem)) return { label, change: { hands: next } };
  }
  return undefined;
}

const named = ({ item, kind }: MovedProblem) => `${item.id} ${kind}`;

/** Whether an item is shown without a problem now, and all else is as right as it was before. */
function isRight(
  after: Lettered,
  before: Lettered,
  { item: { id }, kind }: Parameters<typeof firstThatHelps>[2],
): boolean {
  const lost = new Set(before.lost.map(({ item }) => item.id));
  const doubtful = new Set(before.moved.map(named));
  return (
    after.items.some(({ itemId }) => itemId === id) &&
    after.missing.length <= before.missing.length &&
    after.lost.every(({ item }) => item.id !== id && lost.has(item.id)) &&
    after.moved.every((one) => doubtful.has(named(one)) && !(one.item.id === id && one.kind === kind))
  );
}

/** The way to leave an item out of one frame: it is always there. */
export const leaveOut = (hands: Hands, { id }: Item): NonNullable<Finding['fix']> => ({
  label: 'Leave it out here',
  change: { hands: withHand(hands, id, { isOff: true }) },
});

/** The short version of an item, where it has one and does not show it already. */
export function shortVersion(item: Item, lettered: Pick<Lettered, 'items'>, hand: Partial<Hand> = {}): Way[] {
  if (item.kind !== 'words' || item.short.trim() === '') return [];
  const isShown = lettered.items.some(({ itemId, text }) => itemId === item.id && text === item.short);
  return isShown ? [] : [{ label: 'Use the short version', hand: { ...hand, text: item.short } }];
}
