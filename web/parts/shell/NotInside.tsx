import type { Workspace } from '@inkwell/core/model';
import { workspaceBase } from '../../api/access/workspaces.ts';

/** Stands where an address names a workspace that whoever is here is not in, or not any more. */
export function NotInside({ all }: { all: readonly Workspace[] }) {
  return (
    <div className="page">
      <h1>You are not in this workspace</h1>
      <p>It may be that you were taken out of it, or that the address is incomplete. An owner of it can invite you.</p>
      {all.length === 0 ? (
        <p>You are in no other one.</p>
      ) : (
        <>
          <p>Go to one of yours:</p>
          <ul>
            {all.map((one) => (
              <li key={one.id}>
                <a href={`${workspaceBase(one)}/`}>{one.name}</a>
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
