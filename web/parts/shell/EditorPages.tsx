import { Link, Outlet, useOutletContext } from 'react-router';
import { useMay, useWorkspace } from '../../api/access/workspaces.ts';
import { Empty } from '../States.tsx';

/** Pages that are there to change something: whoever may only look and comes by their address is told so before anything is written. */
export function EditorPages() {
  const workspace = useWorkspace();
  const mayChange = useMay('editor');
  const around: unknown = useOutletContext();
  // Where it is not known who is here, the page says so itself.
  if (mayChange || workspace === null) return <Outlet context={around} />;
  return (
    <div className="page">
      <Empty title="This page is for editors">
        In {workspace.name} you look, and change nothing. An owner can make you an editor. <Link to="/">Projects</Link>{' '}
        and the <Link to="/spec-book">spec book</Link> can be looked at.
      </Empty>
    </div>
  );
}
