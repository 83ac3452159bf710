import { insideSpan, upright } from '@inkwell/core/geometry';
import { SavedFrameSchema } from '@inkwell/core/model';
import type { Client } from '@inkwell/server/testing/programs/client.ts';

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

/** Milliseconds until the true bytes of an encoding are there, over HTTP. */
export interface TrialTimes {
  /** Of the first, right after the frame was made, while a worker measures it and looks at its picture. */
  atOnce: number;
  /** Until the picture is there that the weight view shows as it opens, and of the first then. */
  opened: number;
  first: number;
  /** Of one not tried before, and of one that was. */
  fresh: number;
  again: number;
}

/**
 * A hand drags the quality of a file of 1080 × 1350 px: in one picture at once; in the other as a person does, who opens the weight
 * view first, forty qualities new and the same once more; medians.
 */
export async function trialTimes(client: Client, picture: string, another: string): Promise<TrialTimes> {
  const timed = async (task: Promise<unknown>) => {
    const began = performance.now();
    await task;
    return performance.now() - began;
  };
  const trial = ({ frame, hash }: Awaited<ReturnType<typeof oneFrame>>, quality: number) =>
    timed(client.ask('GET', `/frames/${frame.id}/trial?plan=${hash}&format=jpeg&quality=${quality}&similarity=no`));
  const one = await oneFrame(client, another);
  await client.bytes(`/originals/${one.original.id}/preview?width=448`);
  const atOnce = await trial(one, 95);

  const other = await oneFrame(client, picture);
  const [measured] = await client.measured(other.frame.projectId);
  await client.looked(other.frame.projectId);
  const opened = await timed(client.bytes(`/frames/${other.frame.id}/uncompressed?plan=${other.hash}`));
  // A hand begins where the handle stands.
  const begin = (measured?.weight?.quality ?? 84) - 1;
  const first = await trial(other, begin);
  const qualities = Array.from({ length: 41 }, (_, at) => 90 - at).filter((quality) => quality !== begin);
  const all = { fresh: [] as number[], again: [] as number[] };
  for (const quality of qualities) all.fresh.push(await trial(other, quality));
  for (const quality of qualities) all.again.push(await trial(other, quality));
  const middle = (times: number[]) => [...times].sort((a, b) => a - b)[times.length >> 1] ?? Number.NaN;
  return { atOnce, opened, first, fresh: middle(all.fresh), again: middle(all.again) };
}
