import type { KeptIn, OwnPlace } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import {
  addOwnPlace,
  findOwnPlace,
  framesAtPlace,
  placeIdOf,
  saveOwnPlace,
  setOwnPlaceDeleted,
} from '../../store/library/ownPlaces.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import { projectName } from '../../store/projects/projects.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { checkVersion, saveAndMeasure, saving } from '../plans/saveAndMeasure.ts';

const what = 'This place';

/** A place of one's own: the id of its row, and what frames call it. */
export interface OwnPlaceIds {
  id: string;
  placeId: string;
}

/** Makes a place, in a sheet of one's own or for one project. @throws UserError where that project is not there */
export async function makeOwnPlace(
  { db }: Pick<Services, 'db'>,
  place: OwnPlace,
  keptIn: KeptIn,
): Promise<OwnPlaceIds> {
  const sheetName =
    keptIn.kind === 'sheet'
      ? keptIn.name
      : `Only in ${orNotFound(await projectName(db, keptIn.projectId), 'This project')}`;
  const row = await addOwnPlace(db, place, keptIn, sheetName);
  return { id: row.id, placeId: placeIdOf(row) };
}

/**
 * Saves a change of a place that was made on a version of it, and asks for what has to be measured anew of its frames.
 *
 * @throws UserError where it was changed elsewhere
 */
export async function changeOwnPlace(
  services: Pick<Services, 'db' | 'planner'>,
  id: string,
  version: number,
  place: OwnPlace,
): Promise<OwnPlaceIds> {
  const saved = await saveAndMeasure(
    services,
    async (tx) => {
      const words = 'This place was changed in another window. Reload the page to see the latest version.';
      checkVersion(orNotFound(await findOwnPlace(tx, id), what), version, words);
      return orNotFound(await saveOwnPlace(tx, id, version, place), what);
    },
    (tx, changed) => framesAffected(tx, { placeId: placeIdOf(changed) }),
  );
  return { id, placeId: placeIdOf(saved) };
}

/** Puts a place aside, from where it can be taken back. @throws UserError where frames are made for it */
export async function putOwnPlaceAside(services: Pick<Services, 'db'>, id: string): Promise<void> {
  await saving(services, async (tx) => {
    const row = orNotFound(await findOwnPlace(tx, id), what);
    const used = await framesAtPlace(tx, placeIdOf(row));
    if (used > 0) {
      const [frames, out] =
        used === 1 ? ['1 frame is', 'it out of its project'] : [`${used} frames are`, 'them out of their projects'];
      throw new UserError(`${frames} made for ${row.place.name}. Take ${out} first.`, 409);
    }
    await setOwnPlaceDeleted(tx, id, true);
  });
}
