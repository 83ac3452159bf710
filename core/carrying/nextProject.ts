import equal from 'fast-deep-equal';
import { type Aim, type OpenProject, type ProjectSettings, ProjectSettingsSchema } from '../model/index.ts';
import { countedUp } from './nextName.ts';
import { onAllPictures } from './onAllPictures.ts';

/**
 * What the project after another begins with: all that is set for it, without its pictures. Pictures that are chosen get the places that it
 * had, and its aim. What lay over single pictures lies over all, and what was said on single ones is not said, for those pictures are not in
 * it. A number counts up.
 */
export function nextProject(project: OpenProject): ProjectSettings {
  return {
    ...ProjectSettingsSchema.parse(project),
    lettering: project.lettering
      .map(onAllPictures)
      .map((item) =>
        item.kind === 'words' && item.role === 'number' ? { ...item, text: countedUp(item.text) ?? item.text } : item,
      ),
    usualPlaces: placesOf(project),
    usualAim: project.usualAim ?? aimOf(project),
  };
}

/** The places that every picture gets, or else those that at least half of its pictures have. */
function placesOf({ usualPlaces, frames }: OpenProject): string[] {
  if (usualPlaces.length > 0) return usualPlaces;
  const pictures = new Set(frames.map(({ originalId }) => originalId)).size;
  const counts = new Map<string, number>();
  for (const { placeId } of frames) counts.set(placeId, (counts.get(placeId) ?? 0) + 1);
  return [...counts].flatMap(([placeId, count]) => (count * 2 >= pictures ? [placeId] : []));
}

/** What the bytes of all its frames are spent on; null where they differ. */
function aimOf({ frames }: OpenProject): Aim | null {
  const aim = frames[0]?.weighing.aim ?? null;
  return frames.every(({ weighing }) => equal(weighing.aim, aim)) ? aim : null;
}
