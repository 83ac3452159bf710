import { type Place, PlaceSchema, type SheetChange, type SheetFinding, type SpecSheet } from '../model/index.ts';

/** The sheets with what was measured and taken over in the place of what they say. */
export function withMeasured(sheets: readonly SpecSheet[], findings: readonly SheetFinding[]): SpecSheet[] {
  return sheets.map((sheet) => {
    const own = findings.filter(({ network }) => network === sheet.slug);
    if (own.length === 0) return sheet;
    const afterUpload = own.reduce(
      (after, { place, taken }) => (after && taken && place === null ? processedAs(after, taken) : after),
      sheet.afterUpload,
    );
    const places = sheet.places.map((place) =>
      placeWith(
        place,
        own.filter((one) => one.place === place.slug),
      ),
    );
    return { ...sheet, ...(afterUpload ? { afterUpload } : {}), places };
  });
}

function processedAs(
  after: NonNullable<SpecSheet['afterUpload']>,
  change: SheetChange,
): NonNullable<SpecSheet['afterUpload']> {
  if (change.field === 'long edge') return { ...after, longEdge: change.longEdge };
  if (change.field !== 'encoding') return after;
  const { format, quality, chroma } = change;
  return { ...after, format, quality, chroma };
}

/** A place with what was taken over; as it was where that would be no place. Taking a number back changes its version too. */
function placeWith(place: Place, findings: readonly SheetFinding[]): Place {
  if (findings.length === 0) return place;
  const version = findings.reduce((sum, one) => sum + one.version, 0);
  const on =
    findings
      .map(({ measuredOn }) => measuredOn)
      .sort()
      .at(-1) ?? '';
  const changed = findings.reduce((now, { taken }) => (taken ? placeAs(now, taken) : now), place);
  return PlaceSchema.safeParse({ ...changed, measured: { on, version } }).data ?? place;
}

function placeAs(place: Place, change: SheetChange): Place {
  switch (change.field) {
    case 'limit':
      return { ...place, limit: change.limit };
    case 'formats':
      return { ...place, formats: change.formats };
    case 'height':
      return { ...place, height: change.height };
    case 'most panels':
      return place.group?.kind === 'panels' ? { ...place, group: { ...place.group, max: change.most } } : place;
    case 'gap':
      return place.group?.kind === 'block' ? { ...place, group: { ...place.group, gap: change.gap } } : place;
    default:
      return place;
  }
}
