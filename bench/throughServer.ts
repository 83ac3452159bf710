import { insideSpan, upright } from '@inkwell/core/geometry';
import { SavedFrameSchema } from '@inkwell/core/model';
import type { Client } from '@inkwell/server/testing/client.ts';

const output = { width: 1080, height: 1350 };

/** A picture uploaded and put into one frame of 1080 × 1350. */
async function oneFrame(client: Client, picture: string) {
  const original = await client.file(picture);
  const { id, frames } = await client.project('Bench', [original], ['sunpane/portrait-post']);
  const [frame] = frames;
  const [measured] = await client.weights(id);
  if (!frame || !measured) throw new Error('The frame was not made.');
  return { original, frame, hash: measured.planHash };
}

/** Milliseconds from a window's change to its proof in hand: save, then proof, over HTTP. */
export async function proofTimes(client: Client, picture: string, changes: number): Promise<number[]> {
  const { original, frame } = await oneFrame(client, picture);
  const times: number[] = [];
  for (let change = 0; change < changes; change += 1) {
    const span = insideSpan(original, output) * (0.35 + 0.65 * ((change * 0.618) % 1));
    const window = {
      centreX: original.width * ((change * 0.377) % 1),
      centreY: original.height * ((change * 0.733) % 1),
      span,
      ...upright,
    };
    const began = performance.now();
    const saved = { version: change + 1, change: { window, composed: false } };
    const { planned } = SavedFrameSchema.parse((await client.ask('PATCH', `/frames/${frame.id}`, saved)).body);
    const proof = await client.bytes(`/frames/${frame.id}/proof?plan=${planned?.planHash}&width=448`);
    times.push(performance.now() - began);
    if (proof.length < 2000) throw new Error('That was no proof.');
  }
  return times;
}

export interface TrialTimes {
  /** Milliseconds until the true bytes of an encoding are there: of the first, of one not tried before, of one that was. */
  first: number;
  fresh: number;
  again: number;
}

/** A hand drags the quality of a 1080 × 1350 file: over HTTP, forty qualities new and the same once more; medians. */
export async function trialTimes(client: Client, picture: string): Promise<TrialTimes> {
  const { original, frame, hash } = await oneFrame(client, picture);
  await client.bytes(`/originals/${original.id}/preview?width=448`);
  const time = async (quality: number) => {
    const began = performance.now();
    await client.ask('GET', `/frames/${frame.id}/trial?plan=${hash}&format=jpeg&quality=${quality}&similarity=no`);
    return performance.now() - began;
  };
  const first = await time(95);
  const qualities = Array.from({ length: 40 }, (_, at) => 90 - at);
  const all = { fresh: [] as number[], again: [] as number[] };
  for (const quality of qualities) all.fresh.push(await time(quality));
  for (const quality of qualities) all.again.push(await time(quality));
  const middle = (times: number[]) => [...times].sort((a, b) => a - b)[times.length >> 1] ?? Number.NaN;
  return { first, fresh: middle(all.fresh), again: middle(all.again) };
}
