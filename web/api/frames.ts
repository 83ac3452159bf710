import { type Frame, type FrameChange, FrameSchema } from '@inkwell/core/model';
import { type Saved, save } from './client.ts';

/** Saves a change made on top of `version`. @throws ApiError for everything but a conflict */
export const saveFrame = (id: string, version: number, change: FrameChange): Promise<Saved<Frame>> =>
  save(FrameSchema, `/frames/${id}`, version, change);

/** The proof of a frame's plan. The plan's hash makes the address change with every change of the picture. */
export const proofUrl = (frameId: string, planHash: string, width: number, finish: 'own' | 'plain' = 'own') =>
  `/api/frames/${frameId}/proof?plan=${planHash}&width=${width}${finish === 'plain' ? '&finish=plain' : ''}`;

/** Pixels of a frame's unfinished picture: all of it as it is plain, or enlarged; a part of that is added to the address. */
export const plainPixelsUrl = (frameId: string, plainHash: string) =>
  `/api/frames/${frameId}/pixels?plan=${plainHash}&stage=plain`;
export const enlargedPixelsUrl = (frameId: string, plainHash: string, oversize: number) =>
  `/api/frames/${frameId}/pixels?plan=${plainHash}&stage=enlarged&oversize=${oversize}`;
