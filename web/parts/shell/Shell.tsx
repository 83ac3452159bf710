import './Shell.css';
import type { Door } from '@inkwell/core/model';
import { useEffect, useState } from 'react';
import { NavLink, Outlet, ScrollRestoration } from 'react-router';
import { useDoor } from '../../api/access/door.ts';
import { settleAddress, useWorkspace } from '../../api/access/workspaces.ts';
import { SignInScreen } from '../../screens/door/SignInScreen.tsx';
import { NotInside } from './NotInside.tsx';
import { PersonMenu } from './PersonMenu.tsx';
import { UploadDock } from './UploadDock.tsx';
import { WorkspaceMenu } from './WorkspaceMenu.tsx';

/** What stands round every screen: the name, the ways to the main screens, and the files on their way in. */
export function Shell() {
  const { data: door, isPending, failureCount } = useDoor();
  const workspace = useWorkspace();
  const isLeaving = useSettledAddress(door);
  // Nothing is asked for that a stranger would be refused; where nobody answers, the screens say so.
  const isAtDoor = (isPending && failureCount === 0) || isLeaving;
  const isOut = door?.hasAccounts === true && door.person === null;
  // What somebody was at stays as it is until they are in again.
  const [wasIn, setWasIn] = useState(false);
  if (door?.person && !wasIn) setWasIn(true);
  if (isOut && !wasIn) return <SignInScreen />;
  const all = door?.workspaces ?? [];
  const isOutside = door !== undefined && !isOut && workspace === null;
  return (
    <>
      {isOut && <SignInScreen />}
      <div className="shell" hidden={isOut}>
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
          {(all.length > 1 || isOutside) && <WorkspaceMenu all={all} current={workspace} />}
          {door?.person && <PersonMenu person={door.person} role={workspace?.role ?? null} />}
        </header>
        <main className="shell-main">{!isAtDoor && (isOutside ? <NotInside all={all} /> : <Outlet />)}</main>
        <UploadDock />
        <ScrollRestoration />
      </div>
    </>
  );
}

/** Leads to an address that names the workspace, as soon as it is known who is here. @returns whether this page is being left */
function useSettledAddress(door: Door | undefined): boolean {
  const [isLeaving, setIsLeaving] = useState(false);
  useEffect(() => {
    if (door) setIsLeaving(settleAddress(door));
  }, [door]);
  return isLeaving;
}
