import './Shell.css';
import { NavLink, Outlet, ScrollRestoration } from 'react-router';
import { UploadDock } from './UploadDock.tsx';

/** What stands round every screen: the name, the ways to the main screens, and the files on their way in. */
export function Shell() {
  return (
    <div className="shell">
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
      </header>
      <main className="shell-main">
        <Outlet />
      </main>
      <UploadDock />
      <ScrollRestoration />
    </div>
  );
}
