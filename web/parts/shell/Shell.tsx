import './Shell.css';
import type { Door } from '@inkwell/core/model';
import { useEffect, useState } from 'react';
import { Outlet, ScrollRestoration } from 'react-router';
import { useDoor } from '../../api/access/door.ts';
import { settleAddress, useWorkspace } from '../../api/access/workspaces.ts';
import { useTogether } from '../../api/together/useTogether.ts';
import { SignInScreen } from '../../screens/door/SignInScreen.tsx';
import { NotInside } from './NotInside.tsx';
import { ShellHead } from './ShellHead.tsx';
import { UploadDock } from './UploadDock.tsx';

/** What stands round every screen: the name, the ways to the main screens, and the files on their way in. */
export function Shell() {
  const { data: door, isPending, failureCount } = useDoor();
  const workspace = useWorkspace();
  const isLeaving = useSettledAddress(door);
  useTogether(workspace !== null && !isLeaving);
  // Nothing is asked for that a stranger would be refused; where nobody answers, the screens say so.
  const isAtDoor = (isPending && failureCount === 0) || isLeaving;
  const isOut = door?.hasAccounts === true && door.person === null;
  // What somebody was at stays as it is until they are in again.
  const [wasIn, setWasIn] = useState(false);
  if (door?.person && !wasIn) setWasIn(true);
  if (isOut && !wasIn) return <SignInScreen />;
  const isOutside = door !== undefined && !isOut && workspace === null;
  return (
    <>
      {isOut && <SignInScreen />}
      <div className="shell" hidden={isOut}>
        <ShellHead door={door} workspace={workspace} />
        <main className="shell-main">
          {!isAtDoor && (isOutside ? <NotInside all={door.workspaces} /> : <Outlet />)}
        </main>
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
