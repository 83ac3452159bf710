import './ProgramsScreen.css';
import { Link } from 'react-router';
import { useIsKeeper } from '../../api/access/backups.ts';
import { useMay } from '../../api/access/workspaces.ts';
import { Tokens } from './Tokens.tsx';
import { Webhooks } from './Webhooks.tsx';

/** What other programs do with this one: what they ask it with, and what they hear of it, which owners say. */
export function ProgramsScreen() {
  const isOwner = useMay('owner');
  const isKeeper = useIsKeeper();
  return (
    <div className="page programs">
      <h1>Other programs</h1>
      <p className="quiet page-about">
        A script can do all that these pages do. <Link to="/api/docs">What it can ask for, route by route</Link>.
      </p>
      {isKeeper && (
        <p>
          <Link to="/backups">Backups of everything</Link> are files that another machine can read;{' '}
          <Link to="/shares">shares</Link> say how much of this one may be used.
        </p>
      )}
      <Tokens />
      {isOwner && <Webhooks />}
    </div>
  );
}
