import './ProjectLayout.css';
import { HistoryOutlined } from '@ant-design/icons';
import type { OpenProject } from '@inkwell/core/model';
import { NavLink, Outlet, useMatch, useOutletContext, useParams, useSearchParams } from 'react-router';
import { useMay } from '../api/access/workspaces.ts';
import { ApiError } from '../api/client.ts';
import { useFinishes } from '../api/library/finishes.ts';
import { useSpecBook } from '../api/library/specBook.ts';
import { useProject, useProjectActions } from '../api/projects/projects.ts';
import { useSayWhere } from '../api/together/useTogether.ts';
import { NameField } from '../parts/fields/NameField.tsx';
import { OthersHere } from '../parts/OthersHere.tsx';
import { Failure, Skeleton } from '../parts/States.tsx';
import { useUndoNote } from '../parts/useUndoNote.tsx';

/** The project that the screens below are about. */
export const useOpenProject = () => useOutletContext<OpenProject>();

/** What the screens of a project share: its name and the ways between choosing, the bench, its files and delivering. */
export function ProjectLayout() {
  const { projectId = '' } = useParams();
  const [search] = useSearchParams();
  const { data: project, error, refetch } = useProject(projectId);
  // What its screens need as well is asked for beside it, not after it.
  useFinishes();
  useSpecBook();
  // The bench says on which frame.
  useSayWhere(projectId, null, useMatch('/projects/:projectId') === null);
  const mayChange = useMay('editor');
  const { rename } = useProjectActions();
  const note = useUndoNote();
  // Deleted in another window, it is not worked on any further here, though it is still known.
  const isGone = error instanceof ApiError && error.status === 404;
  if (error && (!project || isGone)) {
    return (
      <div className="page">
        <Failure error={error} again={() => void refetch()} />
      </div>
    );
  }
  const kept = search.size > 0 ? `?${search}` : '';
  const base = `/projects/${projectId}`;
  return (
    <div className="project">
      <div className="project-head">
        <h1>
          {project ? (
            <NameField
              name={project.name}
              what="project"
              onRename={mayChange ? (name) => rename.mutateAsync({ id: project.id, name }).catch(note.failed) : null}
            />
          ) : (
            <Skeleton width={180} height={22} />
          )}
        </h1>
        <nav aria-label="Project" className="tabs">
          <NavLink to={`${base}/choose`}>
            Pictures<span>{'\u00a0and places'}</span>
          </NavLink>
          <NavLink to={`${base}/series`}>Series</NavLink>
          <NavLink to={`${base}${kept}`} end>
            Bench
          </NavLink>
          <NavLink to={`${base}/look-over`}>Look over</NavLink>
          <NavLink to={`${base}/review`}>Review</NavLink>
          <NavLink to={`${base}/files`}>Files</NavLink>
          <NavLink to={`${base}/deliver`}>Deliver</NavLink>
        </nav>
        <OthersHere projectId={projectId} />
        <NavLink to={`${base}/history`} className="history-link" title="Who did what, and the way back">
          <HistoryOutlined aria-hidden />
          <span>History</span>
        </NavLink>
        <div id="project-tools" className="row" />
      </div>
      <div className="project-body">
        {project ? (
          <Outlet context={project} />
        ) : (
          <div className="page">
            <Skeleton height={420} />
          </div>
        )}
      </div>
    </div>
  );
}
