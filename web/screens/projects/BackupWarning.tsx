import { Link } from 'react-router';
import { useBackups } from '../../api/access/backups.ts';
import { ago } from '../../parts/when.ts';

/** Says that the last good backup is older than was chosen, to whoever looks after backups. */
export function BackupWarning() {
  const { data } = useBackups().query;
  if (!data?.isLate) return null;
  return (
    <p role="alert" className="sheet project-asked">
      {data.lastGoodAt ? `The last good backup is of ${ago(data.lastGoodAt)}.` : 'There is no good backup yet.'} Until
      there is one, what came since is only here. <Link to="/backups">Look at the backups</Link>
    </p>
  );
}
