import equal from 'fast-deep-equal';
import type { Place, SheetContent } from '../model/index.ts';

/** What two people have made of one version: each property as the one has it who changed it, mine where both did. */
function mergedProperties<Of extends object>(before: Of, mine: Of, theirs: Of): Of {
  const keys = new Set([...Object.keys(mine), ...Object.keys(theirs)]) as Set<keyof Of>;
  const chosen = [...keys].map((key) => [key, equal(before[key], mine[key]) ? theirs[key] : mine[key]] as const);
  return Object.fromEntries(chosen.filter(([, value]) => value !== undefined)) as Of;
}

/**
 * A sheet that two people have changed from one version, with the changes of both: field by field, and mine where both have changed the
 * same. Places are the same where their slugs are.
 */
export function mergedSheets(before: SheetContent, mine: SheetContent, theirs: SheetContent): SheetContent {
  const [then, other] = [bySlug(before.places), bySlug(theirs.places)];
  const kept = mine.places.flatMap((place): Place[] => {
    const [old, their] = [then.get(place.slug), other.get(place.slug)];
    if (old && their) return [mergedProperties(old, place, their)];
    // The other has taken out what was not touched here.
    return old && equal(old, place) ? [] : [place];
  });
  const here = new Set(mine.places.map(({ slug }) => slug));
  const added = theirs.places.filter(({ slug }) => !here.has(slug) && !then.has(slug));
  return { ...mergedProperties(before, mine, theirs), places: [...kept, ...added] };
}

const bySlug = (places: readonly Place[]): Map<string, Place> => new Map(places.map((place) => [place.slug, place]));
