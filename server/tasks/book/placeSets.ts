import type { AppliedSet, Lettering, PlaceSet, PlaceSetSettings, ProjectSettings } from '@inkwell/core/model';
import { patternProblem } from '@inkwell/core/naming';
import type { Services } from '../../services.ts';
import { areThere } from '../../store/library/originals.ts';
import { addPlaceSet, findPlaceSet, savePlaceSet } from '../../store/library/placeSets.ts';
import { projectPins } from '../../store/projects/projects.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { checkVersion } from '../plans/saveAndMeasure.ts';
import { changeProjectSettings, chooseFrames } from '../projects/changeProject.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

const what = 'This set';
const elsewhere = 'This set was changed in another window.';

function checkPattern({ pattern }: Pick<PlaceSetSettings, 'pattern'>): void {
  const problem = pattern === null ? null : patternProblem(pattern);
  if (problem) throw new UserError(problem);
}

/** Makes a set of places. @throws UserError where its name pattern names no files */
export async function makePlaceSet({ db }: Pick<Stores, 'db'>, settings: PlaceSetSettings): Promise<PlaceSet> {
  checkPattern(settings);
  return addPlaceSet(db, settings);
}

/** Saves a set changed on a version of it. @throws UserError with the set as it is now where that was changed elsewhere */
export async function changePlaceSet(
  { db }: Pick<Stores, 'db'>,
  id: string,
  version: number,
  settings: PlaceSetSettings,
): Promise<PlaceSet> {
  checkPattern(settings);
  const saved = await savePlaceSet(db, id, version, settings);
  if (saved) return saved;
  checkVersion(orNotFound(await findPlaceSet(db, id), what), version, elsewhere);
  throw new UserError(elsewhere, 409);
}

/**
 * Gives the pictures of a project the places of a set, with what goes with them; pictures that are chosen later get them as well.
 *
 * @throws UserError where one of them is not there, or with the project as it is now where that was changed elsewhere
 */
export async function applyPlaceSet(
  services: Stores,
  id: string,
  projectId: string,
  version: number,
): Promise<AppliedSet> {
  const { db, planner } = services;
  const set = orNotFound(await findPlaceSet(db, id), what);
  const pins = orNotFound(await projectPins(db, projectId), 'This project');
  const { places } = (await planner.open()).bookFor({ pins });
  const placeIds = set.placeIds.filter((placeId) => places.has(placeId));
  const settings = await settingsOf(services, set, placeIds);
  // From here on pictures that are chosen get the places of the set by themselves.
  const { originals } = await changeProjectSettings(services, projectId, version, settings);
  const wanted = originals.flatMap(({ id: originalId }) => placeIds.map((placeId) => ({ originalId, placeId })));
  const changed = await chooseFrames(services, projectId, wanted, []);
  return { project: changed, missing: set.placeIds.filter((placeId) => !places.has(placeId)) };
}

/** What a set says of a project; emblems whose pictures are not there are left out. */
async function settingsOf(
  { db }: Pick<Stores, 'db'>,
  { finishId, lettering, pattern, aim }: PlaceSet,
  placeIds: string[],
): Promise<Partial<ProjectSettings>> {
  const items: Lettering = [];
  for (const item of lettering ?? []) {
    if (item.kind !== 'emblem' || (await areThere(db, [item.originalId]))) items.push(item);
  }
  return {
    usualPlaces: placeIds,
    usualAim: aim,
    ...(finishId === null ? {} : { finishId }),
    ...(pattern === null ? {} : { pattern }),
    ...(lettering === null ? {} : { lettering: items }),
  };
}
