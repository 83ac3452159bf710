import './Shell.css';
import { useState } from 'react';
import { NavLink, Outlet, ScrollRestoration } from 'react-router';
import { useDoor } from '../../api/access/door.ts';
import { SignInScreen } from '../../screens/door/SignInScreen.tsx';
import { PersonMenu } from './PersonMenu.tsx';
import { UploadDock } from './UploadDock.tsx';

/** What stands round every screen: the name, the ways to the main screens, and the files on their way in. */
export function Shell() {
  const { data: door, isPending, failureCount } = useDoor();
  // Nothing is asked for that a stranger would be refused; where nobody answers, the screens say so.
  const isAtDoor = isPending && failureCount === 0;
  const isOut = door?.hasAccounts === true && door.person === null;
  // What somebody was at stays as it is until they are in again.
  const [wasIn, setWasIn] = useState(false);
  if (door?.person && !wasIn) setWasIn(true);
  if (isOut && !wasIn) return <SignInScreen />;
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
          {door?.person && <PersonMenu person={door.person} />}
        </header>
        <main className="shell-main">{!isAtDoor && <Outlet />}</main>
        <UploadDock />
        <ScrollRestoration />
      </div>
    </>
  );
}
