import equal from 'fast-deep-equal';
import type { Place, PlaceNumber, Provenance, SheetContent, SheetVersion, SpecSheet } from '../model/index.ts';
import { placeFields } from './fields.ts';

/** Where a number of a place is from: what is said of itself, or of its sheet. */
export const provenanceOf = (
  { checkedOn, source, sureness }: Provenance,
  place: Pick<Place, 'provenance'>,
  number: PlaceNumber,
): Provenance => place.provenance?.[number] ?? { checkedOn, source, sureness };

/** A number as it has been from one version of its sheet on. */
export interface NumberThen {
  version: number;
  savedAt: string;
  savedBy: string;
  note: string;
  /** What it said; empty where it said nothing. */
  words: string;
  provenance: Provenance;
  /** Whether the number itself was changed, and not only where it is from. */
  isChanged: boolean;
}

/** What a number of a place has been, the newest first; versions that changed nothing of it are left out. */
export function historyOf(versions: readonly SheetVersion[], slug: string, number: PlaceNumber): NumberThen[] {
  const field = placeFields[number];
  const found: NumberThen[] = [];
  let last: { value: unknown; provenance: Provenance } | null = null;
  for (const { content, number: version, ...words } of [...versions].sort((a, b) => a.number - b.number)) {
    const place = content.places.find((one) => one.slug === slug);
    if (!place) continue;
    const [value, provenance] = [field.value(place), provenanceOf(content, place, number)];
    const isChanged: boolean = !last || !equal(last.value, value);
    if (isChanged || !equal(last?.provenance, provenance)) {
      const { savedAt, savedBy, note } = words;
      found.unshift({ version, savedAt, savedBy, note, words: field.words(place), provenance, isChanged });
    }
    last = { value, provenance };
  }
  return found;
}

const dayMs = 86_400_000;

/** How many whole days lie between two dates; none where the first is the later one. */
export const daysBetween = (from: string, to: string): number =>
  Math.max(0, Math.floor((Date.parse(to.slice(0, 10)) - Date.parse(from.slice(0, 10))) / dayMs));

/** How old the numbers of a sheet of one's own are, in days, where that is more than it allows; null where it is not, or it ships. */
export function overdueDays(
  sheet: Pick<SpecSheet, 'checkedOn' | 'places' | 'recheckDays' | 'own'>,
  today: string,
): number | null {
  if (!sheet.own) return null;
  const age = daysBetween(oldestCheck(sheet), today);
  return age > sheet.recheckDays ? age : null;
}

/** The oldest date of those numbers of a place that have a date of their own; null where none has. */
export const oldestOf = ({ provenance = {} }: Pick<Place, 'provenance'>): string | null =>
  Object.values(provenance)
    .map(({ checkedOn }) => checkedOn)
    .sort()[0] ?? null;

/** The oldest date on which any number of a sheet was checked: a place counts with what it says of its own numbers. */
export function oldestCheck(sheet: Pick<SheetContent, 'checkedOn' | 'places'>): string {
  const own = sheet.places.filter(({ isAway }) => !isAway).flatMap((place) => oldestOf(place) ?? []);
  return [sheet.checkedOn, ...own].sort()[0] ?? sheet.checkedOn;
}
