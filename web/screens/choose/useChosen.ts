import { type OpenProject, type Original, pairKey } from '@inkwell/core/model';
import { useMemo } from 'react';
import { useOriginals } from '../../api/library/originals.ts';
import { useAsked } from '../../api/projects/projects.ts';

const itself = (id: string) => id;
const none: Original[] = [];

/** What is chosen for a project as it will be when all that was asked for has come back from the server. */
export function useChosen(project: OpenProject): {
  originals: Original[];
  has: (originalId: string, placeId: string) => boolean;
  /** Pictures that came in earlier and are not chosen. */
  others: Original[];
} {
  const { data: known = none } = useOriginals();
  const asked = useAsked(project.id);
  const isThere = useMemo(() => new Set(project.originals.map(({ id }) => id)), [project.originals]);
  const pairs = useMemo(() => new Set(project.frames.map(pairKey)), [project.frames]);
  const ids = asThen(isThere, asked.originals, itself);
  const chosen = asThen(pairs, asked.frames, pairKey);
  const coming = known.filter(({ id }) => !isThere.has(id));
  return {
    originals: [...project.originals, ...coming].filter(({ id }) => ids.has(id)),
    has: (originalId, placeId) => chosen.has(pairKey({ originalId, placeId })),
    others: known.filter(({ id }) => !ids.has(id)),
  };
}

/** The keys of what there is after some changes, one after the other. */
function asThen<Item>(
  before: ReadonlySet<string>,
  changes: readonly { add?: Item[]; remove?: Item[] }[],
  toKey: (item: Item) => string,
): ReadonlySet<string> {
  if (changes.length === 0) return before;
  const then = new Set(before);
  for (const { add = [], remove = [] } of changes) {
    for (const item of remove) then.delete(toKey(item));
    for (const item of add) then.add(toKey(item));
  }
  return then;
}
