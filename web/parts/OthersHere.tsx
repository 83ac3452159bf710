import './OthersHere.css';
import { useShallow } from 'zustand/react/shallow';
import { useOthers } from '../api/together/others.ts';
import { initialsOf } from './shell/initials.ts';

/** Who else is on a frame, or anywhere in a project, by initials. */
export function OthersHere({ projectId, frameId }: { projectId: string; frameId?: string }) {
  const names = useOthers(
    useShallow(({ others }) => [
      ...new Set(
        others
          .filter((one) => one.projectId === projectId && (frameId === undefined || one.frameId === frameId))
          .map(({ name }) => name),
      ),
    ]),
  );
  if (names.length === 0) return null;
  return (
    <span className="others" role="img" aria-label={`Also here: ${names.join(', ')}`} title={names.join(', ')}>
      {names.map((name) => (
        <span key={name}>{initialsOf(name)}</span>
      ))}
    </span>
  );
}
