import type { PlaceOfNetwork } from '../model/index.ts';
import { plainName } from './pictureFinder.ts';

/** Finds the place that is meant by a name; null where there is none, or several. */
export type PlaceFinder = (name: string) => string | null;

/** Finds places by their ids, by what network and place are called, or by what a place is called that no other network has. */
export function placeFinder(places: ReadonlyMap<string, PlaceOfNetwork>): PlaceFinder {
  const byName = new Map<string, Set<string>>();
  for (const [id, { network, place }] of places) {
    for (const name of [id, `${network.name} ${place.name}`, place.name].map(plainName)) {
      byName.set(name, new Set([...(byName.get(name) ?? []), id]));
    }
  }
  return (name) => {
    const [id, ...others] = byName.get(plainName(name)) ?? [];
    return id !== undefined && others.length === 0 ? id : null;
  };
}
