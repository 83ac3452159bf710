import equal from 'fast-deep-equal';
import type { Place, SheetContent } from '../model/index.ts';
import { type PlaceField, placeFields, type SheetField, sheetFields } from './fields.ts';

/** What a field said, and what it says now; empty where it says nothing. */
export interface FieldDifference<Field> {
  field: Field;
  label: string;
  before: string;
  after: string;
}

/** What became of one place from one version of a sheet to another. */
export interface PlaceDifference {
  slug: string;
  name: string;
  kind: 'new' | 'gone' | 'changed';
  /** Null where it is new, or gone. */
  before: Place | null;
  after: Place | null;
  /** Of one that is changed. */
  fields: FieldDifference<PlaceField>[];
}

/** What is different between two versions of a sheet. */
export interface SheetDifference {
  fields: FieldDifference<SheetField>[];
  /** In the order of the later version, those that are gone last. */
  places: PlaceDifference[];
  /** Whether the places that both have stand in another order. */
  isReordered: boolean;
}

/** What is different between two places, field by field. */
export function placeDifferences(before: Place, after: Place): FieldDifference<PlaceField>[] {
  return (Object.keys(placeFields) as PlaceField[]).flatMap((field) => {
    const { label, words, value } = placeFields[field];
    if (equal(value(before), value(after))) return [];
    return [{ field, label, before: words(before), after: words(after) }];
  });
}

/** What is different between two versions of a sheet. Places are the same where their slugs are. */
export function sheetDifferences(before: SheetContent, after: SheetContent): SheetDifference {
  const fields = (Object.keys(sheetFields) as SheetField[]).flatMap((field) => {
    const { label, words, value } = sheetFields[field];
    if (equal(value(before), value(after))) return [];
    return [{ field, label, before: words(before), after: words(after) }];
  });
  const then = new Map(before.places.map((place) => [place.slug, place]));
  const now = new Set(after.places.map(({ slug }) => slug));
  const places = after.places.flatMap((place): PlaceDifference[] => {
    const old = then.get(place.slug);
    const { slug, name } = place;
    if (!old) return [{ slug, name, kind: 'new', before: null, after: place, fields: [] }];
    const changed = placeDifferences(old, place);
    if (changed.length === 0) return [];
    return [{ slug, name, kind: 'changed', before: old, after: place, fields: changed }];
  });
  const gone = before.places
    .filter(({ slug }) => !now.has(slug))
    .map(
      (place): PlaceDifference => ({
        slug: place.slug,
        name: place.name,
        kind: 'gone',
        before: place,
        after: null,
        fields: [],
      }),
    );
  const kept = (all: readonly Place[]) => all.map(({ slug }) => slug).filter((slug) => then.has(slug) && now.has(slug));
  return {
    fields,
    places: [...places, ...gone],
    isReordered: !equal(kept(before.places), kept(after.places)),
  };
}

/** Whether nothing is different. */
export const isSame = ({ fields, places, isReordered }: SheetDifference): boolean =>
  fields.length === 0 && places.length === 0 && !isReordered;

/**
 * In which version every place of a sheet has changed last.
 *
 * @param since the same of the version before
 * @param number of the version that is made
 */
export function sinceOf(
  since: Readonly<Record<string, number>>,
  before: SheetContent,
  after: SheetContent,
  number: number,
): Record<string, number> {
  const touched = new Set(sheetDifferences(before, after).places.map(({ slug }) => slug));
  return Object.fromEntries(
    after.places.map(({ slug }) => [slug, touched.has(slug) ? number : (since[slug] ?? number)]),
  );
}
