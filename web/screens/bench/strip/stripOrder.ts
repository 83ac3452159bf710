import { type Frame, isLeftOut, type ManifestFile, type Measured, type Original } from '@inkwell/core/model';
import type { Look } from './lookOf.ts';

export type StripSort = 'as chosen' | 'by name' | 'newest first';
export type StripFilter = 'all' | 'doubts' | 'not looked at' | 'not delivered' | 'changed since';

export const sortWords: Record<StripSort, string> = {
  'as chosen': 'As chosen',
  'by name': 'By name',
  'newest first': 'Newest first',
};
export const filterWords: Record<StripFilter, string> = {
  all: 'All pictures',
  doubts: 'With doubts',
  'not looked at': 'Not looked at',
  'not delivered': 'Not delivered yet',
  'changed since': 'Changed since they were delivered',
};

/** What the filters ask about an original. */
export interface StripFacts {
  look: (original: Original) => Look;
  delivered: (original: Original) => 'never' | 'changed since' | 'as it is';
}

/** The originals that a filter lets through, in order. */
export function inStrip(
  originals: readonly Original[],
  { sort, filter }: { sort: StripSort; filter: StripFilter },
  { look, delivered }: StripFacts,
): Original[] {
  const passes: Record<StripFilter, (one: Original) => boolean> = {
    all: () => true,
    doubts: (one) => look(one) === 'doubt',
    'not looked at': (one) => look(one) === 'not looked at' || look(one) === 'waiting',
    'not delivered': (one) => delivered(one) === 'never',
    'changed since': (one) => delivered(one) === 'changed since',
  };
  const found = originals.filter(passes[filter]);
  if (sort === 'by name') {
    return found.sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }));
  }
  return sort === 'newest first' ? found.sort((a, b) => b.createdAt.localeCompare(a.createdAt)) : found;
}

/**
 * Whether the frames of originals were delivered, by the plans that went into deliveries.
 *
 * @param measured the plans as they are now, by frame; where one is not known, nothing is said against it
 */
export function deliveredFacts(
  frames: readonly Frame[],
  deliveries: readonly { files: readonly Pick<ManifestFile, 'planHash' | 'originalSha256'>[] }[],
  measured: ReadonlyMap<string, Pick<Measured, 'planHash'>>,
): StripFacts['delivered'] {
  const plans = new Set<string>();
  const bytes = new Set<string>();
  for (const { files } of deliveries) {
    for (const { planHash, originalSha256 } of files) {
      plans.add(planHash);
      bytes.add(originalSha256);
    }
  }
  const changed = new Set(
    frames.flatMap((frame) => {
      const plan = measured.get(frame.id)?.planHash;
      return isLeftOut(frame) || plan === undefined || plans.has(plan) ? [] : [frame.originalId];
    }),
  );
  return ({ id, sha256 }) => (!bytes.has(sha256) ? 'never' : changed.has(id) ? 'changed since' : 'as it is');
}

/** The selection after a press: with Ctrl one more or fewer, with Shift all from the last one that was pressed. */
export function afterPress(
  selected: ReadonlySet<string>,
  shown: readonly string[],
  pressed: { id: string; last: string | null; isCtrl: boolean; isShift: boolean },
): ReadonlySet<string> {
  const { id, last, isCtrl, isShift } = pressed;
  if (isShift) {
    const [from, to] = [shown.indexOf(last ?? id), shown.indexOf(id)].sort((a, b) => a - b) as [number, number];
    return new Set([...(isCtrl ? selected : []), ...shown.slice(Math.max(0, from), to + 1)]);
  }
  if (!isCtrl) return new Set();
  const next = new Set(selected);
  if (!next.delete(id)) next.add(id);
  return next;
}
