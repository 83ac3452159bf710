import type { ImageFormat, PlaceOfNetwork, Purpose, SpecSheet } from '../model/index.ts';
import { formatLabel } from '../model/index.ts';
import { dimensionsWords, purposeWords } from './placeWords.ts';

/** How wide a place is against its height. */
export type RatioKind = 'square' | 'upright' | 'wide' | 'very wide';
export const ratioKindWords: Record<RatioKind, string> = {
  square: 'Square',
  upright: 'Upright',
  wide: 'Wide',
  'very wide': 'Very wide',
};

/** Nearly square counts as square; from 2:1 on a place is very wide. */
const [nearlySquare, veryWide] = [1.03, 2];

/** What shape a place has; a free height counts with the middle of its range. */
export function ratioKindOf({ width, height }: PlaceOfNetwork['place']): RatioKind {
  const ratio = width / (typeof height === 'number' ? height : (height.min + height.max) / 2);
  if (ratio < 1 / nearlySquare) return 'upright';
  if (ratio <= nearlySquare) return 'square';
  return ratio < veryWide ? 'wide' : 'very wide';
}

/** What places are looked for by; what is null or empty does not matter. */
export interface PlaceQuery {
  /** Words that the network, the place, its purpose, dimensions or formats have to contain, in any order. */
  text: string;
  purpose: Purpose | null;
  ratio: RatioKind | null;
  format: ImageFormat | null;
}
export const anyPlace: PlaceQuery = { text: '', purpose: null, ratio: null, format: null };

/** Whether a query asks for anything. */
export const asksForAnything = ({ text, purpose, ratio, format }: PlaceQuery): boolean =>
  text.trim() !== '' || purpose !== null || ratio !== null || format !== null;

const plain = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

/** By the place: what it can be found by, beside the name of its network. */
const texts = new WeakMap<PlaceOfNetwork['place'], string>();

function textOf(place: PlaceOfNetwork['place']): string {
  const known = texts.get(place);
  if (known !== undefined) return known;
  const dimensions = dimensionsWords(place);
  const text = plain(
    [
      place.name,
      purposeWords[place.purpose],
      dimensions,
      dimensions.replaceAll(' ', '').replaceAll('×', 'x'),
      ...place.formats.map((format) => formatLabel[format]),
    ].join(' '),
  );
  texts.set(place, text);
  return text;
}

/** The places of a book that answer a query, in its order. What is put away is left out. */
export function findPlaces(sheets: readonly SpecSheet[], query: PlaceQuery): PlaceOfNetwork[] {
  const words = plain(query.text)
    .split(/\s+/)
    .filter((word) => word !== '');
  return sheets
    .filter(({ isAway }) => !isAway)
    .flatMap(({ slug, name, places }) => {
      const network = plain(name);
      const isWanted = (place: PlaceOfNetwork['place']) =>
        words.every((word) => network.includes(word) || textOf(place).includes(word));
      return places.flatMap((place): PlaceOfNetwork[] => {
        if (place.isAway) return [];
        if (query.purpose && place.purpose !== query.purpose) return [];
        if (query.format && !place.formats.includes(query.format)) return [];
        if (query.ratio && ratioKindOf(place) !== query.ratio) return [];
        return isWanted(place) ? [{ id: `${slug}/${place.slug}`, network: { slug, name }, place }] : [];
      });
    });
}
