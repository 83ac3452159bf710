import type { Role } from '@inkwell/core/model';
import { countOwners, lockPeople, removePerson, setRole } from '../../store/access/people.ts';
import { endSessions } from '../../store/access/sessions.ts';
import type { Queryable } from '../../store/database.ts';
import { orNotFound, UserError } from '../../userError.ts';
import type { Access } from './access.ts';

const who = 'This person';

async function keepAnOwner(tx: Queryable): Promise<void> {
  if ((await countOwners(tx)) === 0) {
    throw new UserError('Somebody has to own the workspace. Make another person an owner first.', 409);
  }
}

/** @throws UserError where nobody would own the workspace any more */
export const changeRole = ({ db }: Access, id: string, role: Role): Promise<void> =>
  db.transaction(async (tx) => {
    await lockPeople(tx);
    orNotFound(await setRole(tx, id, role), who);
    await keepAnOwner(tx);
  });

/** Takes an account away for good, with its tokens and sessions. @throws UserError as above */
export const takeAway = ({ db }: Access, id: string): Promise<void> =>
  db.transaction(async (tx) => {
    await lockPeople(tx);
    orNotFound(await removePerson(tx, id), who);
    await endSessions(tx, id);
    await keepAnOwner(tx);
  });
