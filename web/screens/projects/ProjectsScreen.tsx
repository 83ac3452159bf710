import './ProjectsScreen.css';
import { CopyOutlined, DeleteOutlined, PlusOutlined } from '@ant-design/icons';
import { resolveFinish } from '@inkwell/core/finishing';
import { frameDimensions } from '@inkwell/core/geometry';
import type { Project } from '@inkwell/core/model';
import { planFrame, planHash } from '@inkwell/core/planning';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { Link, useNavigate } from 'react-router';
import { useFinishes } from '../../api/finishes.ts';
import { proofUrl } from '../../api/frames.ts';
import { useProjectActions, useProjects } from '../../api/projects.ts';
import { usePlaces } from '../../api/specBook.ts';
import { counted } from '../../parts/counted.ts';
import { NameField } from '../../parts/NameField.tsx';
import { Empty, Failure, Skeleton } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';

const coverHeight = 150;

function Cover({ project }: { project: Project }) {
  const places = usePlaces();
  const { data: known } = useFinishes();
  return (
    <Link to={`/projects/${project.id}`} className="project-cover" aria-label={`Open ${project.name}`}>
      {project.cover.map(({ frame, original }) => {
        const place = places.get(frame.placeId)?.place;
        // Without the finishes it is not known which picture to ask for.
        if (!place || !known) return null;
        const { width, height } = frameDimensions(place, original, frame);
        const { treatment } = resolveFinish({ frame, original, project }, known.finishes);
        const hash = planHash(planFrame({ original, place, settings: frame, treatment, keeping: project.keeping }));
        const share = width / height;
        return (
          <img
            key={frame.id}
            alt=""
            src={proofUrl(frame.id, hash, 448)}
            style={{ flex: share, aspectRatio: share, maxWidth: coverHeight * share }}
          />
        );
      })}
      {project.cover.length === 0 && <span className="quiet">No frames yet</span>}
    </Link>
  );
}

/** All projects. */
export function ProjectsScreen() {
  const { data, error, refetch } = useProjects();
  const { add, rename, duplicate, remove, restore } = useProjectActions();
  const note = useUndoNote();
  const navigate = useNavigate();
  const addNew = () =>
    add.mutate('New project', { onSuccess: ({ id }) => navigate(`/projects/${id}/choose`), onError: note.failed });
  const removeProject = ({ id, name }: Project) =>
    note.after(remove.mutateAsync(id), `“${name}” was deleted.`, () => restore.mutateAsync(id));

  return (
    <div className="page">
      <div className="row spread" style={{ marginBottom: 18 }}>
        <h1>Projects</h1>
        <Button type="primary" icon={<PlusOutlined />} onClick={addNew} loading={add.isPending}>
          New project
        </Button>
      </div>
      {error && !data && <Failure error={error} again={() => void refetch()} />}
      {!data && !error && <Skeleton height={240} />}
      {data?.length === 0 && (
        <Empty title="No projects yet">A project holds pictures and the places they go to. Start with a new one.</Empty>
      )}
      <div className="project-grid">
        {data?.map((project) => (
          <article key={project.id} className="sheet project-card" aria-label={project.name}>
            <Cover project={project} />
            <div className="row spread project-line">
              <div>
                <h3>
                  <NameField
                    name={project.name}
                    what="project"
                    onRename={(name) => rename.mutateAsync({ id: project.id, name }).catch(note.failed)}
                  />
                </h3>
                <span className="quiet small">
                  {counted(project.frameCount, 'frame')} · changed{' '}
                  {dayjs(project.changedAt).format('D MMM YYYY, HH:mm')}
                </span>
              </div>
              <div className="row" style={{ gap: 2 }}>
                <Button
                  type="text"
                  icon={<CopyOutlined />}
                  title="Duplicate"
                  aria-label={`Duplicate ${project.name}`}
                  onClick={() => duplicate.mutateAsync(project.id).catch(note.failed)}
                />
                <Button
                  type="text"
                  icon={<DeleteOutlined />}
                  title="Delete"
                  aria-label={`Delete ${project.name}`}
                  onClick={() => removeProject(project)}
                />
              </div>
            </div>
          </article>
        ))}
      </div>
    </div>
  );
}
