import type { Member, Role } from '@inkwell/core/model';
import { countOwners, countWorkspaces, memberOf, removeMember, setRole } from '../../store/access/members.ts';
import { lockPeople, removePerson } from '../../store/access/people.ts';
import { endSessions } from '../../store/access/sessions.ts';
import type { Queryable } from '../../store/database.ts';
import { orNotFound, UserError } from '../../userError.ts';
import type { Access } from './access.ts';
import { type Asker, nameOf, note } from './asker.ts';

/** Changes what somebody may do in a workspace, while nobody else does. @throws UserError where nobody would own it any more */
const change = (
  { db }: Access,
  workspaceId: string,
  id: string,
  act: (tx: Queryable, member: Member) => Promise<void>,
): Promise<void> =>
  db.transaction(async (tx) => {
    await lockPeople(tx);
    const member = orNotFound(await memberOf(tx, workspaceId, id), 'This person');
    await act(tx, member);
    if ((await countOwners(tx, workspaceId)) === 0) {
      throw new UserError('Somebody has to own the workspace. Make another person an owner first.', 409);
    }
  });

/** @throws UserError where nobody would own the workspace any more */
export const changeRole = (access: Access, workspaceId: string, id: string, role: Role, asker: Asker): Promise<void> =>
  change(access, workspaceId, id, async (tx, member) => {
    await setRole(tx, workspaceId, id, role);
    await note(tx, asker, 'role changed', `${nameOf(member)}: ${member.role}, now ${role}`, { workspaceId });
  });

/**
 * Takes somebody out of a workspace, with the tokens that hold there. Who is in no other loses the account, with all sessions.
 *
 * @throws UserError as above
 */
export const takeOut = (access: Access, workspaceId: string, id: string, asker: Asker): Promise<void> =>
  change(access, workspaceId, id, async (tx, member) => {
    await removeMember(tx, workspaceId, id);
    const isLast = (await countWorkspaces(tx, id)) === 0;
    await note(tx, asker, isLast ? 'account taken away' : 'left', nameOf(member), { workspaceId });
    if (!isLast) return;
    await removePerson(tx, id);
    await endSessions(tx, id);
  });
