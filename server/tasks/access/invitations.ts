import type { MadeInvitation, NewInvitation, OpenInvitation, Person, TakenInvitation } from '@inkwell/core/model';
import {
  addInvitation,
  holdingInvitation,
  listInvitations,
  takeInvitation,
  withdrawFirst,
  withdrawInvitation,
} from '../../store/access/invitations.ts';
import { addMember } from '../../store/access/members.ts';
import { accountOf, addPerson, isAnybodyThere, lockPeople } from '../../store/access/people.ts';
import { firstWorkspace, workspaceName } from '../../store/access/workspaces.ts';
import type { Database, Queryable } from '../../store/database.ts';
import { orNotFound, UserError } from '../../userError.ts';
import type { Access } from './access.ts';
import { type Asker, atMachine, note } from './asker.ts';
import { newLinkSecret, secretHash } from './linkSecrets.ts';
import { writeMail } from './mailing.ts';
import { newPasswordHash } from './passwords.ts';
import { type Proved, proved } from './signIn.ts';

const hoursOfFirst = 24;
const hoursOfInvitation = 7 * 24;

const over = () =>
  new UserError('This invitation does not hold: it was taken, withdrawn, or has ended. Ask for another.', 404);

const invitationLink = (origin: string, secret: string) => `${origin}/invitation#${secret}`;

/** The link to the first account, as long as there is none: whoever starts the program sees it. Null where there are accounts. */
export async function firstLink(db: Database, origin: string): Promise<string | null> {
  const secret = newLinkSecret();
  return db.transaction(async (tx) => {
    await lockPeople(tx);
    if (await isAnybodyThere(tx)) return null;
    const workspaceId = await firstWorkspace(tx);
    const hash = secretHash(secret);
    await addInvitation(tx, { workspaceId, email: null, role: 'owner', hash, invitedBy: null, hours: hoursOfFirst });
    return invitationLink(origin, secret);
  });
}

/** @param invitedBy the id of whoever asks; null where somebody does at the machine itself */
async function invitationOf(
  tx: Queryable,
  workspaceId: string,
  { email, role }: NewInvitation,
  invitedBy: string | null,
  asker: Asker,
): Promise<{ id: string; link: string }> {
  const secret = newLinkSecret();
  const asked = { email, role, invitedBy };
  await lockPeople(tx);
  const id = await addInvitation(tx, { ...asked, workspaceId, hash: secretHash(secret), hours: hoursOfInvitation });
  await note(tx, asker, 'invited', email, { workspaceId });
  return { id, link: invitationLink(asker.origin, secret) };
}

/** Invites somebody by mail; whoever invites gets the link as well. */
export function invite(
  { db, mailing }: Access,
  workspaceId: string,
  by: Person,
  asked: NewInvitation,
  asker: Asker,
): Promise<MadeInvitation> {
  return db.transaction(async (tx) => {
    const { id, link } = await invitationOf(tx, workspaceId, asked, by.id, asker);
    const text = `${by.name} invites you to Inkwell Frame.\n\nFollow this link within seven days and choose a password, or sign in if you have one:\n${link}\n\nIf you do not know what this is about, do nothing.\n`;
    await writeMail(tx, { to: asked.email, subject: 'You are invited to Inkwell Frame', text }, mailing);
    const invitation = (await listInvitations(tx, workspaceId)).find((one) => one.id === id);
    if (!invitation) throw new Error('The invitation was not stored.');
    return { invitation, link };
  });
}

/** The link of an invitation, as somebody at the machine itself asks for it. */
export const inviteByHand = (
  db: Database,
  workspaceId: string,
  asked: NewInvitation,
  origin: string,
): Promise<string> =>
  db.transaction(async (tx) => (await invitationOf(tx, workspaceId, asked, null, atMachine(origin))).link);

/** @throws UserError where it does not hold any more */
export const withdraw = ({ db }: Access, workspaceId: string, id: string, asker: Asker): Promise<void> =>
  db.transaction(async (tx) => {
    const email = orNotFound(await withdrawInvitation(tx, workspaceId, id), 'This invitation');
    await note(tx, asker, 'invitation withdrawn', email, { workspaceId });
  });

/** What a link invites to. @throws UserError where it does not hold */
export async function openInvitation({ db }: Access, secret: string): Promise<OpenInvitation> {
  const held = await holdingInvitation(db, secretHash(secret));
  if (!held) throw over();
  const { email, role, workspaceId } = held;
  return { email, role, workspace: (await workspaceName(db, workspaceId)) ?? '' };
}

/** Makes the account that a link invites to. @throws UserError where it does not hold, or something cannot be taken */
export async function acceptInvitation({ db }: Access, taken: TakenInvitation, asker: Asker): Promise<Proved> {
  const hash = secretHash(taken.secret);
  const held = await holdingInvitation(db, hash);
  if (!held) throw over();
  const email = held.email ?? taken.email;
  if (email === undefined) throw new UserError('Say the e-mail address that you want to sign in with.', 400);
  const { name } = taken;
  const passwordHash = await newPasswordHash(taken.password, { email, name });
  return db.transaction(async (tx) => {
    await lockPeople(tx);
    const mine = await takeInvitation(tx, hash);
    if (!mine) throw over();
    if (mine.email === null && (await isAnybodyThere(tx))) throw over();
    await withdrawFirst(tx);
    const { workspaceId, role } = mine;
    const id = await addPerson(tx, { email, name, passwordHash });
    if (id === null) {
      throw new UserError('You have an account with this address already. Sign in to join with it.', 409);
    }
    await addMember(tx, workspaceId, id, role);
    const account = await accountOf(tx, id);
    if (!account) throw new Error('The account was not stored.');
    await note(tx, { ...asker, person: account.person }, 'account made', null, { workspaceId });
    return proved(account);
  });
}

/** Takes somebody who has an account into the workspace that a link invites to. @throws UserError where it does not hold, or is another's */
export const joinWorkspace = ({ db }: Access, person: Person, secret: string, asker: Asker): Promise<string> =>
  db.transaction(async (tx) => {
    await lockPeople(tx);
    const mine = await takeInvitation(tx, secretHash(secret));
    if (!mine) throw over();
    if (mine.email !== person.email) {
      throw new UserError('This invitation is for another address. Sign out, and sign in with that one.', 403);
    }
    const { workspaceId } = mine;
    if (await addMember(tx, workspaceId, person.id, mine.role)) await note(tx, asker, 'joined', null, { workspaceId });
    return workspaceId;
  });
