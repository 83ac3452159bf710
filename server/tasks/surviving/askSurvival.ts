import type { AskedSurvival } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { knownSurvival } from '../../store/measured/survivals.ts';
import { addWork, failures, isWaiting, priorities } from '../../store/work.ts';
import { orNotFound } from '../../userError.ts';
import { askedFrame } from '../plans/askedFrame.ts';
import { holdShares } from '../sharing/refusing.ts';
import { placeSays, survivalHash } from './network.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

const keyOf = (hash: string) => `survival ${hash}`;

/** What a frame's place and plan come to, for what is found out about both. @throws UserError where the frame has changed */
export async function askedUpload(services: Stores, frameId: string, planHash: string) {
  const { framed, planning } = await askedFrame(services, frameId, planHash);
  const at = orNotFound(placeSays(planning.bookFor(framed.project), framed.frame.placeId), 'The place of this frame');
  return { framed, at, hash: survivalHash(planHash, at) };
}

/** What is known of how a frame is uploaded best, and whether it is being found out. */
export async function survivalSoFar(services: Stores, frameId: string, planHash: string): Promise<AskedSurvival> {
  const { hash } = await askedUpload(services, frameId, planHash);
  const key = keyOf(hash);
  // In this order: what is found out between two questions is kept before its work is gone.
  const isWorking = await isWaiting(services.db, key);
  const failure = (await failures(services.db, [key])).get(key) ?? null;
  return { survival: await knownSurvival(services.db, hash), isWorking, failure };
}

/** Asks to find out how a frame is uploaded best. What failed is tried again. */
export async function askSurvival(services: Stores, frameId: string, planHash: string): Promise<void> {
  const { hash, framed } = await askedUpload(services, frameId, planHash);
  if (await knownSurvival(services.db, hash)) return;
  const task = { kind: 'survival' as const, frameId, hash };
  const wanted = { key: keyOf(hash), task, priority: priorities.delivering, projectId: framed.project.id };
  await services.db.transaction(async (tx) => {
    await addWork(tx, [wanted], true);
    await holdShares(tx, 'jobs');
  });
}
