import type { AllShares, OwnShares, Share, ShareOf } from '@inkwell/core/model';
import { listMembers, memberOf } from '../../store/access/members.ts';
import { setShareOf, shareOf, usedNow } from '../../store/access/shares.ts';
import { listWorkspaces, workspaceName } from '../../store/access/workspaces.ts';
import type { Database } from '../../store/database.ts';
import { orNotFound } from '../../userError.ts';
import { type Asker, nameOf, note } from '../access/asker.ts';
import type { Counting } from './counting.ts';

/** What shares are known from. */
export interface ShareTools {
  whole: Database;
  counting: Counting;
}

async function standing(
  { whole, counting }: ShareTools,
  workspaceId: string,
  personId: string | null,
): Promise<ShareOf> {
  const [share, kept, counted] = await Promise.all([
    shareOf(whole, workspaceId, personId),
    usedNow(whole, workspaceId, personId),
    counting.counted(workspaceId, personId),
  ]);
  return { share, used: { ...kept, ...counted } };
}

/** What whoever asks may use in a workspace, and uses. */
export async function ownShares(tools: ShareTools, workspaceId: string, personId: string | null): Promise<OwnShares> {
  const [person, workspace] = await Promise.all([
    personId === null ? null : standing(tools, workspaceId, personId),
    standing(tools, workspaceId, null),
  ]);
  return { person, workspace };
}

/** What everybody in a workspace may use. @param isKeeper whether whoever asks looks after all workspaces */
export async function allShares(tools: ShareTools, workspaceId: string, isKeeper: boolean): Promise<AllShares> {
  const people: AllShares['people'] = [];
  for (const { id, name } of await listMembers(tools.whole, workspaceId)) {
    people.push({ of: { id, name }, ...(await standing(tools, workspaceId, id)) });
  }
  const workspaces: AllShares['workspaces'] = [];
  for (const { id, name } of isKeeper ? await listWorkspaces(tools.whole) : []) {
    workspaces.push({ of: { id, name }, ...(await standing(tools, id, null)) });
  }
  return { people, workspaces };
}

/** Gives somebody in a workspace another share of it. @throws UserError where the person is not in it */
export async function changePersonShare(
  { whole, counting }: ShareTools,
  workspaceId: string,
  personId: string,
  share: Share,
  asker: Asker,
): Promise<void> {
  await whole.transaction(async (tx) => {
    const member = orNotFound(await memberOf(tx, workspaceId, personId), 'This person');
    await setShareOf(tx, workspaceId, personId, share);
    await note(tx, asker, 'share changed', nameOf(member), { workspaceId });
  });
  counting.forget(workspaceId, personId);
}

/** Gives a workspace another share of the machine. @throws UserError where there is no such workspace */
export async function changeWorkspaceShare(
  { whole, counting }: ShareTools,
  workspaceId: string,
  share: Share,
  asker: Asker,
): Promise<void> {
  await whole.transaction(async (tx) => {
    const name = orNotFound(await workspaceName(tx, workspaceId), 'This workspace');
    await setShareOf(tx, workspaceId, null, share);
    await note(tx, asker, 'share changed', name, { workspaceId });
  });
  counting.forget(workspaceId, null);
}
