import { type Frame, type FrameChange, FrameSchema } from '@inkwell/core/model';
import { ApiError, ask } from './client.ts';

/** What came of a save: done, or refused because the frame was changed elsewhere, with what it is now. */
export type Saved = { done: Frame } | { elsewhere: Frame };

/** Saves a change made on top of `version`. @throws ApiError for everything but a conflict */
export async function saveFrame(id: string, version: number, change: FrameChange): Promise<Saved> {
  try {
    return { done: await ask(FrameSchema, `/frames/${id}`, { method: 'PATCH', body: { version, change } }) };
  } catch (error) {
    const current =
      error instanceof ApiError && error.status === 409 ? FrameSchema.safeParse(error.details.current) : null;
    if (current?.success) return { elsewhere: current.data };
    throw error;
  }
}

/** The proof of a frame's plan. The plan's hash makes the address change with every change of the picture. */
export const proofUrl = (frameId: string, planHash: string, width: number) =>
  `/api/frames/${frameId}/proof?plan=${planHash}&width=${width}`;
