import { type Frame, type FrameChange, FrameSchema } from '@inkwell/core/model';
import { type Saved, save } from './client.ts';

/** Saves a change made on top of `version`. @throws ApiError for everything but a conflict */
export const saveFrame = (id: string, version: number, change: FrameChange): Promise<Saved<Frame>> =>
  save(FrameSchema, `/frames/${id}`, version, change);

/** The proof of a frame's plan. The plan's hash makes the address change with every change of the picture. */
export const proofUrl = (frameId: string, planHash: string, width: number) =>
  `/api/frames/${frameId}/proof?plan=${planHash}&width=${width}`;
