import type { LearnedUpload, UploadChoice } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import {
  forgetLearnedUpload,
  type KeptUpload,
  keepLearnedUpload,
  listLearnedUploads,
} from '../../store/library/learnedUploads.ts';
import { knownSurvival } from '../../store/measured/survivals.ts';
import { orNotFound } from '../../userError.ts';
import type { Planning } from '../plans/planner.ts';
import { askedUpload } from './askSurvival.ts';
import { placeHash, placeSays } from './network.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

const asKnown = (planning: Planning, { learnedFor, ...learned }: KeptUpload): LearnedUpload => {
  const at = placeSays(planning, learned.placeId);
  return { ...learned, isOutdated: at === null || placeHash(at) !== learnedFor };
};

/** The ways to upload that are used for places. */
export async function learnedUploads({ db, planner }: Stores): Promise<LearnedUpload[]> {
  const planning = await planner.open();
  return (await listLearnedUploads(db)).map((kept) => asKnown(planning, kept));
}

/** How new frames are uploaded, by the id of their place; none where the place has changed since that was learned. */
export const choicesByPlace = async (services: Stores): Promise<Map<string, UploadChoice>> =>
  new Map(
    (await learnedUploads(services)).flatMap(({ placeId, isOutdated, survival }) =>
      isOutdated ? [] : [[placeId, survival.best.choice] as const],
    ),
  );

/**
 * Uses what was found for a frame for all new frames of its place.
 *
 * @throws UserError where nothing was found yet, or the frame has changed since
 */
export async function learnUpload(services: Stores, frameId: string, planHash: string): Promise<LearnedUpload> {
  const { db, planner } = services;
  const { framed, at, hash } = await askedUpload(services, frameId, planHash);
  const kept: KeptUpload = {
    placeId: at.id,
    survival: orNotFound(await knownSurvival(db, hash), 'What is shown best of this frame'),
    learnedFrom: framed.original.name,
    learnedOn: new Date().toISOString().slice(0, 10),
    learnedFor: placeHash(at),
  };
  await keepLearnedUpload(db, kept);
  return asKnown(await planner.open(), kept);
}

/** New frames of a place are uploaded as the place says again. */
export const forgetUpload = ({ db }: Pick<Stores, 'db'>, placeId: string): Promise<void> =>
  forgetLearnedUpload(db, placeId);
