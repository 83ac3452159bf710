import type { Person, Role, Workspace } from '@inkwell/core/model';
import { Dropdown } from 'antd';
import { useNavigate } from 'react-router';
import { useIsKeeper } from '../../api/access/backups.ts';
import { useThreshold } from '../../api/access/door.ts';
import { workspaceBase } from '../../api/access/workspaces.ts';
import { useUndoNote } from '../useUndoNote.tsx';
import { initialsOf } from './initials.ts';

/** Who is signed in, and the ways to what is theirs. */
export function PersonMenu(props: {
  person: Person;
  role: Role | null;
  /** The workspaces that there is a way to from here. */
  workspaces: readonly Workspace[];
}) {
  const { person, role, workspaces } = props;
  const { signOut } = useThreshold();
  const isKeeper = useIsKeeper();
  const navigate = useNavigate();
  const note = useUndoNote();
  const items = [
    { key: 'account', label: 'Your account', onClick: () => void navigate('/account') },
    { key: 'shares', label: 'Shares', onClick: () => void navigate('/shares') },
    ...(isKeeper ? [{ key: 'backups', label: 'Backups', onClick: () => void navigate('/backups') }] : []),
    ...(role === 'owner' ? [{ key: 'people', label: 'People', onClick: () => void navigate('/people') }] : []),
    ...workspaces.map((one) => ({ key: one.id, label: <a href={`${workspaceBase(one)}/`}>{one.name}</a> })),
    { key: 'out', label: 'Sign out', onClick: () => void signOut.mutateAsync().catch(note.failed) },
  ];
  return (
    <div className="person">
      {role === 'viewer' && <span className="quiet small">You look, and change nothing</span>}
      <Dropdown menu={{ items }} trigger={['click']} placement="bottomRight">
        <button
          type="button"
          className="plain-button person-button"
          aria-label={`${person.name}: account and signing out`}
        >
          {initialsOf(person.name)}
        </button>
      </Dropdown>
    </div>
  );
}
