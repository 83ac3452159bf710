import { createWriteStream } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Delivery, OpenProject } from '@inkwell/core/model';
import { kitFiles, postingKit } from '@inkwell/core/posting';
import type { Services } from '../../services.ts';
import { readBlob } from '../../store/blobs/blobs.ts';
import { deliveryProgress, findDelivery } from '../../store/projects/deliveries.ts';
import { framesOfProject } from '../../store/projects/frames.ts';
import { kitTextsOf } from '../../tasks/delivering/archive.ts';
import { requestDelivery } from '../../tasks/delivering/requestDelivery.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { Progress } from '../progress.ts';
import { untilDone } from './untilDone.ts';

/**
 * Delivers frames of a project as they are set, and waits until that is over.
 *
 * @param only the ids of frames; null for all
 */
export async function delivered(
  services: Services,
  { id: projectId, pattern }: Pick<OpenProject, 'id' | 'pattern'>,
  only: readonly string[] | null,
  isQuiet: boolean,
): Promise<Delivery> {
  const { db, planner } = services;
  const planning = await planner.open();
  const seen = (await framesOfProject(db, projectId, only)).flatMap((framed) => {
    const plan = planning.measuringOf(framed)?.planned.planHash;
    return plan ? [{ frameId: framed.frame.id, plan }] : [];
  });
  const asked = await requestDelivery(services, { projectId, pattern, only: only ?? undefined, seen });
  const progress = new Progress('Delivering', asked.frameCount, isQuiet);
  await untilDone(
    async () => orNotFound(await deliveryProgress(db, asked.id), 'The delivery'),
    ({ doneCount, state }) => {
      progress.at(doneCount);
      return state !== 'waiting' && state !== 'working';
    },
  );
  progress.end();
  const { delivery } = orNotFound(await findDelivery(db, asked.id), 'The delivery');
  if (delivery.state === 'done') return delivery;
  // It says nothing against the pictures: the program could not finish.
  throw new UserError(delivery.failure ?? 'The delivery was ended before it was finished.', 503);
}

/** Writes what the archive of a delivery holds into a folder. @returns the paths of the files within it */
export async function writeKit(
  { db }: Services,
  delivery: Delivery,
  projectName: string,
  out: string,
): Promise<string[]> {
  const kit = postingKit(delivery.files);
  const files = kitFiles(kit);
  for (const { line, path } of files) {
    const to = join(out, path);
    await mkdir(dirname(to), { recursive: true });
    await pipeline(readBlob(db, line.sha256), createWriteStream(to, { flags: 'wx' }));
  }
  await mkdir(out, { recursive: true });
  for (const [name, text] of kitTextsOf({ projectName }, delivery, kit)) await writeFile(join(out, name), text);
  return files.map(({ path }) => path);
}
