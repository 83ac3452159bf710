import type { OpenProject, Original } from '@inkwell/core/model';
import { useOriginals } from '../../api/library/originals.ts';
import { isPair, useAsked } from '../../api/projects/projects.ts';

/** What is chosen for a project as it will be when all that was asked for has come back from the server. */
export function useChosen(project: OpenProject): {
  originals: Original[];
  has: (originalId: string, placeId: string) => boolean;
  /** Pictures that came in earlier and are not chosen. */
  others: Original[];
} {
  const { data: known = [] } = useOriginals();
  const asked = useAsked(project.id);
  const isChosen = ({ id }: Original) =>
    lastWord(asked.originals, (one) => one === id) ?? project.originals.some((one) => one.id === id);
  const coming = known.filter(({ id }) => !project.originals.some((one) => one.id === id));
  return {
    originals: [...project.originals, ...coming].filter(isChosen),
    has(originalId, placeId) {
      const here = isPair({ originalId, placeId });
      return lastWord(asked.frames, here) ?? project.frames.some(here);
    },
    others: known.filter((one) => !isChosen(one)),
  };
}

/** Whether the newest change that touches something adds it (true) or removes it (false); null where none does. */
function lastWord<Item>(
  changes: readonly { add?: Item[]; remove?: Item[] }[],
  isIt: (item: Item) => boolean,
): boolean | null {
  const last = changes.findLast(({ add = [], remove = [] }) => add.some(isIt) || remove.some(isIt));
  return last ? (last.add ?? []).some(isIt) : null;
}
