import type { Item } from '../model/index.ts';

/** An item as it is meant for other pictures: laid over all of them, and saying the same on each. */
export function onAllPictures(item: Item): Item {
  if (item.kind !== 'words') return { ...item, originalIds: null };
  const { onPictures: _, ...words } = item;
  return { ...words, originalIds: null };
}
