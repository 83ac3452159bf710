import './AccountScreen.css';
import { PersonNameSchema } from '@inkwell/core/model';
import { useAccount } from '../../api/access/account.ts';
import { useDoor } from '../../api/access/door.ts';
import { useWorkspace } from '../../api/access/workspaces.ts';
import { NameField } from '../../parts/fields/NameField.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { LostScreen } from '../LostScreen.tsx';
import { roleWords } from '../people/roleWords.ts';
import { ChangePassword } from './ChangePassword.tsx';
import { SecondFactor } from './SecondFactor.tsx';
import { Sessions } from './Sessions.tsx';
import { YourWorkspaces } from './YourWorkspaces.tsx';

/** Somebody's own account. */
export function AccountScreen() {
  const { data } = useDoor();
  const { rename } = useAccount();
  const note = useUndoNote();
  const person = data?.person;
  const workspace = useWorkspace();
  if (!person || !workspace) return <LostScreen />;
  const { name, email } = person;
  const { role } = workspace;
  const renameTo = (typed: string) => {
    const checked = PersonNameSchema.safeParse(typed);
    if (checked.success) rename.mutateAsync(checked.data).catch(note.failed);
    else note.warned('The name stays as it was', checked.error.issues[0]?.message ?? '');
  };
  return (
    <div className="page account">
      <h1>
        <NameField name={name} what="your account" onRename={renameTo} />
      </h1>
      <p className="quiet page-about">
        {email}. You are {roleWords[role].as} of {workspace.name}. {roleWords[role].may}
      </p>
      <ChangePassword email={email} />
      <SecondFactor hasOne={person.hasSecondFactor} />
      <YourWorkspaces all={data.workspaces} current={workspace} />
      <Sessions />
    </div>
  );
}
