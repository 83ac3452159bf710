import type { Person, Role } from '@inkwell/core/model';
import { accountOf, countOwners, lockPeople, removePerson, setRole } from '../../store/access/people.ts';
import { endSessions } from '../../store/access/sessions.ts';
import type { Queryable } from '../../store/database.ts';
import { orNotFound, UserError } from '../../userError.ts';
import type { Access } from './access.ts';
import { type Asker, nameOf, note } from './asker.ts';

/** Changes what somebody may do, while nobody else does. @throws UserError where nobody would own the workspace any more */
const change = ({ db }: Access, id: string, act: (tx: Queryable, person: Person) => Promise<void>): Promise<void> =>
  db.transaction(async (tx) => {
    await lockPeople(tx);
    const { person } = orNotFound(await accountOf(tx, id), 'This person');
    await act(tx, person);
    if ((await countOwners(tx)) === 0) {
      throw new UserError('Somebody has to own the workspace. Make another person an owner first.', 409);
    }
  });

/** @throws UserError where nobody would own the workspace any more */
export const changeRole = (access: Access, id: string, role: Role, asker: Asker): Promise<void> =>
  change(access, id, async (tx, person) => {
    await setRole(tx, id, role);
    await note(tx, asker, 'role changed', `${nameOf(person)}: ${person.role}, now ${role}`);
  });

/** Takes an account away for good, with its tokens and sessions. @throws UserError as above */
export const takeAway = (access: Access, id: string, asker: Asker): Promise<void> =>
  change(access, id, async (tx, person) => {
    await removePerson(tx, id);
    await endSessions(tx, id);
    await note(tx, asker, 'account taken away', nameOf(person));
  });
