import { createHash } from 'node:crypto';
import { type PlaceOfNetwork, saidOf } from '@inkwell/core/model';
import type { NetworkSays } from '@inkwell/core/surviving';
import type { Book } from '../book/specBook.ts';

/** A place with what its sheet says of its network. */
export interface PlaceSays extends PlaceOfNetwork {
  says: NetworkSays;
}

/** A place of the spec book; null where there is none of that id any more. */
export function placeSays({ places, sheets }: Book, placeId: string): PlaceSays | null {
  const at = places.get(placeId);
  const sheet = at && sheets.find(({ slug }) => slug === at.network.slug);
  return sheet ? { ...at, says: sheet } : null;
}

/** A hash of all that is said of a place and of what its network does after an upload: not of where that is from. */
export function placeHash({ place: said, says: { afterUpload, otherSides } }: PlaceSays): string {
  const { own: _, provenance: __, isAway: ___, ...place } = saidOf(said);
  return hashed({ place, afterUpload, otherSides });
}

/** What is found out about a plan depends on this. */
export const survivalHash = (planHash: string, at: PlaceSays): string => hashed([planHash, placeHash(at)]);

const hashed = (value: unknown): string => createHash('sha256').update(JSON.stringify(value)).digest('hex');
