import { Button } from 'antd';
import { useSessions } from '../../api/access/account.ts';
import { Listed } from '../../parts/making/Listed.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { ago } from '../../parts/when.ts';

const devices = { computer: 'A computer', 'phone or tablet': 'A phone or tablet' } as const;

/** Where somebody is signed in, to be ended from here. */
export function Sessions() {
  const { query, end, endOthers } = useSessions();
  const note = useUndoNote();
  return (
    <section className="sheet page-part" aria-labelledby="sessions-title">
      <h2 id="sessions-title">Where you are signed in</h2>
      <p className="quiet small">A browser is signed out after twelve hours in which nobody has used it.</p>
      <Listed query={query} none="You are signed in nowhere.">
        {(all) => (
          <>
            <ul className="session-list">
              {all.map(({ id, device, address, since, lastUsedAt, isThis }) => (
                <li key={id} className="row spread wrap">
                  <span>
                    {devices[device]} at {address || 'an unknown address'} {isThis ? <strong>(this one)</strong> : null}
                    <br />
                    <span className="quiet small">
                      Signed in {ago(since)}, last used {ago(lastUsedAt)}
                    </span>
                  </span>
                  {!isThis && (
                    <Button
                      size="small"
                      aria-label={`Sign out of the ${device} at ${address}`}
                      onClick={() => end.mutateAsync(id).catch(note.failed)}
                    >
                      Sign out
                    </Button>
                  )}
                </li>
              ))}
            </ul>
            {all.length > 1 && (
              <Button onClick={() => endOthers.mutateAsync().catch(note.failed)}>Sign out everywhere but here</Button>
            )}
          </>
        )}
      </Listed>
    </section>
  );
}
