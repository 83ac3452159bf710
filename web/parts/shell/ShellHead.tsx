import type { Door, Workspace } from '@inkwell/core/model';
import { NavLink } from 'react-router';
import { useMedia } from '../../theme/useMedia.ts';
import { PersonMenu } from './PersonMenu.tsx';
import { WorkspaceMenu } from './WorkspaceMenu.tsx';

/** The name of the program, the ways to the main screens and to other workspaces, and who is here. */
export function ShellHead({ door, workspace }: { door: Door | undefined; workspace: Workspace | null }) {
  const isSmall = useMedia('(width < 700px)');
  const all = door?.workspaces ?? [];
  const hasWays = all.length > 1;
  return (
    <header className="shell-head">
      <NavLink to="/" className="shell-name" aria-label="Inkwell Frame">
        <img src="/mark.svg" alt="" width={22} height={22} />
        <span>Inkwell Frame</span>
      </NavLink>
      <nav aria-label="Main" className="tabs">
        <NavLink to="/" end>
          Projects
        </NavLink>
        <NavLink to="/originals">Originals</NavLink>
        <NavLink to="/spec-book">Spec book</NavLink>
        <NavLink to="/programs">Programs</NavLink>
      </nav>
      {!isSmall && hasWays && <WorkspaceMenu all={all} current={workspace} />}
      {door?.person && (
        <PersonMenu person={door.person} role={workspace?.role ?? null} workspaces={isSmall && hasWays ? all : []} />
      )}
    </header>
  );
}
