import './PeopleScreen.css';
import { WorkspaceNameSchema } from '@inkwell/core/model';
import { useDoor } from '../../api/access/door.ts';
import { useWorkspace, useWorkspaces } from '../../api/access/workspaces.ts';
import { NameField } from '../../parts/fields/NameField.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { LostScreen } from '../LostScreen.tsx';
import { DoorEvents } from './DoorEvents.tsx';
import { Invitations } from './Invitations.tsx';
import { Mails } from './Mails.tsx';
import { PeopleList } from './PeopleList.tsx';

/** Who is in this workspace, who is invited, and what was written to them and happened at the door. For owners. */
export function PeopleScreen() {
  const { data } = useDoor();
  const workspace = useWorkspace();
  const { rename } = useWorkspaces();
  const note = useUndoNote();
  if (!data?.person || workspace?.role !== 'owner') return <LostScreen />;
  const renameTo = (typed: string) => {
    const checked = WorkspaceNameSchema.safeParse(typed);
    if (checked.success) rename.mutateAsync(checked.data).catch(note.failed);
    else note.warned('The name stays as it was', checked.error.issues[0]?.message ?? '');
  };
  return (
    <div className="page people">
      <h1>People</h1>
      <p className="people-workspace">
        Workspace: <NameField name={workspace.name} what="this workspace" onRename={renameTo} />
      </p>
      <p className="quiet page-about">
        Everybody here sees all projects of this workspace, and none of another. What somebody may do goes by the role.
      </p>
      <PeopleList myId={data.person.id} />
      <Invitations />
      {workspace.isFirst && <Mails />}
      <DoorEvents />
    </div>
  );
}
