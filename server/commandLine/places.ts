import type { PlaceOfNetwork } from '@inkwell/core/model';
import { Misuse } from './codes.ts';

/** The place of an id. @throws Misuse that names those that are near, where there is none */
export function knownPlace(places: ReadonlyMap<string, PlaceOfNetwork>, id: string): PlaceOfNetwork {
  const known = places.get(id);
  if (known) return known;
  const [network = ''] = id.split('/');
  const near = [...places.keys()].filter((one) => one.startsWith(`${network}/`));
  const hint =
    near.length > 0 ? `${network} has ${near.join(', ')}.` : 'A place is called network/place, such as sunpane/story.';
  throw new Misuse(`There is no place ${id}. ${hint}`);
}
