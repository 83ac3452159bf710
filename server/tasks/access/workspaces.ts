import type { Person } from '@inkwell/core/model';
import { addMember } from '../../store/access/members.ts';
import { addWorkspace, nameWorkspace } from '../../store/access/workspaces.ts';
import type { Access } from './access.ts';
import { type Asker, note } from './asker.ts';

/** Makes a workspace with nothing in it, which whoever makes it owns. @returns its id */
export const makeWorkspace = ({ db }: Access, name: string, by: Person, asker: Asker): Promise<string> =>
  db.transaction(async (tx) => {
    const workspaceId = await addWorkspace(tx, name);
    await addMember(tx, workspaceId, by.id, 'owner');
    await note(tx, asker, 'workspace made', name, { workspaceId });
    return workspaceId;
  });

export const renameWorkspace = ({ db }: Access, id: string, name: string, asker: Asker): Promise<void> =>
  db.transaction(async (tx) => {
    await nameWorkspace(tx, id, name);
    await note(tx, asker, 'workspace named', name, { workspaceId: id });
  });
