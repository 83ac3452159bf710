import {
  ChangedFrameSchema,
  type Dimensions,
  type FrameChange,
  type SavedFrame,
  SavedFrameSchema,
} from '@inkwell/core/model';
import { z } from 'zod';
import { api, ask, type Saved, save, tell } from '../client.ts';

/** Saves a change made on top of `version`. @throws ApiError for everything but a conflict */
export const saveFrame = (id: string, version: number, change: FrameChange): Promise<Saved<SavedFrame>> =>
  save(SavedFrameSchema, `/frames/${id}`, version, change);

/** Saves many frames of a project, each changed on top of its version. @returns what came of each, in their order. @throws ApiError */
export async function saveFrames(
  projectId: string,
  frames: readonly { id: string; version: number; change: FrameChange }[],
) {
  const path = `/projects/${projectId}/frames`;
  const changed = await ask(z.array(ChangedFrameSchema), path, { method: 'PATCH', body: { frames } });
  return changed.map((one) => ('frame' in one ? { is: one.is, row: one.frame } : one));
}

/**
 * Asks for what is not measured yet of a frame before everything else, because somebody looks at it.
 *
 * @param again tries again what could not be measured
 */
export const measureFirst = (id: string, planHash: string, again = false): Promise<void> =>
  tell(`/frames/${id}/measure`, { method: 'POST', body: { plan: planHash, again } });

/** No proof is wider, as the server answers them. */
const widestProof = 12_000;

/** The proof of a frame's plan. The plan's hash makes the address change with every change of the picture. */
export const proofUrl = (frameId: string, planHash: string, width: number, finish: 'own' | 'plain' = 'own') =>
  `${api}/frames/${frameId}/proof?plan=${planHash}&width=${Math.min(width, widestProof)}${finish === 'plain' ? '&finish=plain' : ''}`;

/** The file itself as a program that opens it sees it, all pieces together: from when it is measured. */
export const shownUrl = (frameId: string, planHash: string, width: number) =>
  `${api}/frames/${frameId}/shown?plan=${planHash}&width=${Math.min(width, widestProof)}`;

/** Pixels of a frame's unfinished picture, plain or enlarged, without loss; a part of it is added to the address. */
export const plainPixelsUrl = (frameId: string, plainHash: string) =>
  `${api}/frames/${frameId}/pixels?plan=${plainHash}&stage=plain`;
export const enlargedPixelsUrl = (frameId: string, plainHash: string, oversize: number) =>
  `${api}/frames/${frameId}/pixels?plan=${plainHash}&stage=enlarged&oversize=${oversize}`;

/** A picture of up to so many pixels is counted as it is; of a larger one, a proof. */
const mostCounted = 16_000_000;

/** How wide a picture of given dimensions is when its pixels are counted. */
export const countedWidth = ({ width, height }: Dimensions): number =>
  width * height <= mostCounted ? width : Math.round(Math.sqrt((mostCounted * width) / height));

/** Where the plain picture of a frame is whose levels are counted: without loss, where it is not too large for that. */
export const countedUrl = (frameId: string, plainHash: string, picture: Dimensions): string =>
  countedWidth(picture) === picture.width
    ? plainPixelsUrl(frameId, plainHash)
    : proofUrl(frameId, plainHash, countedWidth(picture), 'plain');
