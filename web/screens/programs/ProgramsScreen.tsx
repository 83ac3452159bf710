import './ProgramsScreen.css';
import { Link } from 'react-router';
import { useDoor } from '../../api/access/door.ts';
import { Tokens } from './Tokens.tsx';
import { Webhooks } from './Webhooks.tsx';

/** What other programs do with this one: what they ask it with, and what they hear of it, which owners say. */
export function ProgramsScreen() {
  const { data: door } = useDoor();
  return (
    <div className="page programs">
      <h1>Other programs</h1>
      <p className="quiet page-about">
        A script can do all that these pages do. <Link to="/api/docs">What it can ask for, route by route</Link>.
      </p>
      <Tokens />
      {(!door?.hasAccounts || door.person?.role === 'owner') && <Webhooks />}
    </div>
  );
}
