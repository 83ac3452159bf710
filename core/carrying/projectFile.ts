import equal from 'fast-deep-equal';
import type { Lettering, ProjectFile, SheetContent, SheetFile } from '../model/index.ts';

/** A sheet of a project file that says something else here about places that the project uses. */
export interface SheetConflict {
  slug: string;
  name: string;
  /** What the places are called that are otherwise here, or are not here. */
  places: string[];
}

/** The places that a project names anywhere. */
export const placesNamed = ({ settings, frames }: Pick<ProjectFile, 'settings' | 'frames'>): Set<string> =>
  new Set([
    ...frames.map(({ placeId }) => placeId),
    ...settings.usualPlaces,
    ...settings.lettering.flatMap(({ notOnPlaces }) => notOnPlaces),
  ]);

/**
 * The sheets of a file whose files would come out otherwise by those that are here. A sheet that is not here comes with the project.
 *
 * @param here what a sheet says here; null where there is none of that id
 */
export function sheetConflicts(file: ProjectFile, here: (slug: string) => SheetContent | null): SheetConflict[] {
  const named = placesNamed(file);
  return file.sheets.flatMap((sheet) => {
    const ours = here(sheet.slug);
    if (!ours) return [];
    const used = sheet.places.filter(({ slug }) => named.has(`${sheet.slug}/${slug}`));
    const other = used.filter(
      (place) =>
        !equal(
          place,
          ours.places.find(({ slug }) => slug === place.slug),
        ),
    );
    const places = other.map(({ name }) => name);
    const isOther = places.length > 0 || (used.length > 0 && !equal(sheet.otherSides, ours.otherSides));
    return isOther ? [{ slug: sheet.slug, name: sheet.name, places }] : [];
  });
}

/** What ids of a file are here; an original that is not here has none. */
export interface NewIds {
  original: (id: string) => string | null;
  place: (id: string) => string;
  finish: (id: string) => string | null;
}

/** The settings of a project file with the ids that hold here. @param otherwise the finish of a project whose own is not here */
export function settingsHere({ settings }: ProjectFile, ids: NewIds, otherwise: string): ProjectFile['settings'] {
  return {
    ...settings,
    finishId: ids.finish(settings.finishId) ?? otherwise,
    lettering: letteringHere(settings.lettering, ids),
    // Sheets come as the project has them: there is no older version of them here.
    pins: {},
    usualPlaces: settings.usualPlaces.map(ids.place),
  };
}

const letteringHere = (lettering: Lettering, { original, place }: NewIds): Lettering =>
  lettering.flatMap((item): Lettering => {
    const over = {
      ...item,
      originalIds: item.originalIds?.flatMap((id) => original(id) ?? []) ?? null,
      notOnPlaces: item.notOnPlaces.map(place),
    };
    if (over.kind === 'emblem') {
      const originalId = original(over.originalId);
      return originalId === null ? [] : [{ ...over, originalId }];
    }
    if (over.kind !== 'words' || !over.onPictures) return [over];
    const own = Object.entries(over.onPictures).flatMap(([id, words]) => {
      const originalId = original(id);
      return originalId === null ? [] : [[originalId, words] as const];
    });
    return [{ ...over, onPictures: Object.fromEntries(own) }];
  });

/** The sheets that a project needs of a book. */
export const sheetsNamed = (sheets: readonly SheetFile[], placeIds: ReadonlySet<string>): SheetFile[] => {
  const slugs = new Set([...placeIds].map((id) => id.split('/')[0]));
  return sheets.filter(({ slug }) => slugs.has(slug));
};
