import './ProjectsScreen.css';
import { CopyOutlined, DeleteOutlined, DownloadOutlined, PlusOutlined, StepForwardOutlined } from '@ant-design/icons';
import { settledPlace } from '@inkwell/core/framing';
import { frameDimensions } from '@inkwell/core/geometry';
import type { PlaceSet, Project } from '@inkwell/core/model';
import { Button, Dropdown } from 'antd';
import dayjs from 'dayjs';
import { useCallback, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useMay } from '../../api/access/workspaces.ts';
import { usePlaceSets } from '../../api/library/placeSets.ts';
import { usePlaces } from '../../api/library/specBook.ts';
import { proofUrl } from '../../api/projects/frames.ts';
import { projectFileUrl } from '../../api/projects/projectFiles.ts';
import { useProjectActions, useProjects } from '../../api/projects/projects.ts';
import { counted } from '../../parts/counted.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { NameField } from '../../parts/fields/NameField.tsx';
import { Empty, Failure, Skeleton } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { ShareNotice } from '../shares/ShareNotice.tsx';
import { BackupWarning } from './BackupWarning.tsx';
import { useProjectFileButton } from './ProjectFile.tsx';

const coverHeight = 150;

function Cover({ project }: { project: Project }) {
  const places = usePlaces();
  const [made, setMade] = useState(0);
  const count = useCallback(() => setMade((before) => before + 1), []);
  const pictures = project.cover.flatMap(
    ({ frame, original, planHash }): { id: string; share: number; url: string | null }[] => {
      const place = places.get(frame.placeId)?.place;
      if (!place) return [];
      const { width, height } = frameDimensions(settledPlace(place, original, frame), original, frame);
      return [{ id: frame.id, share: width / height, url: planHash && proofUrl(frame.id, planHash, 448) }];
    },
  );
  return (
    <Link to={`/projects/${project.id}`} className="project-cover" aria-label={`Open ${project.name}`}>
      {pictures.map(({ id, share, url }) => (
        <CoverPicture key={id} share={share} url={url} onMade={count} />
      ))}
      {project.cover.length === 0 && <span className="quiet">No frames yet</span>}
      {made < pictures.filter(({ url }) => url !== null).length && (
        <span className="project-cover-note small">Making the pictures …</span>
      )}
    </Link>
  );
}

/** One picture of a cover: its shape at once, the picture when it is made. */
function CoverPicture({ share, url, onMade }: { share: number; url: string | null; onMade: () => void }) {
  return (
    <span className="project-cover-picture" style={{ flex: share, aspectRatio: share, maxWidth: coverHeight * share }}>
      {url && <img alt="" src={url} onLoad={onMade} onError={onMade} />}
    </span>
  );
}

/** All projects. */
export function ProjectsScreen() {
  const { data, error, refetch } = useProjects();
  const { add, rename, duplicate, next, remove, restore } = useProjectActions();
  const { sets, apply } = usePlaceSets();
  const note = useUndoNote();
  const navigate = useNavigate();
  const mayChange = useMay('editor');
  const projectFile = useProjectFileButton();
  const openNew = ({ id }: { id: string }) => navigate(`/projects/${id}/choose`);
  const addNew = () => add.mutate('New project', { onSuccess: openNew, onError: note.failed });
  const addFrom = async (set: PlaceSet) => {
    try {
      const { id, version } = await add.mutateAsync(set.name);
      await apply.mutateAsync({ id: set.id, projectId: id, version });
      navigate(`/projects/${id}/choose`);
    } catch (failure) {
      note.failed(failure);
    }
  };
  const removeProject = ({ id, name }: Project) =>
    note.after(remove.mutateAsync(id), `“${name}” was deleted.`, () => restore.mutateAsync(id));

  return (
    <div className="page">
      <div className="row spread wrap" style={{ marginBottom: 18 }}>
        <h1>Projects</h1>
        <ForEditors>
          <div className="row wrap">
            {sets.length > 0 && (
              <Dropdown
                trigger={['click']}
                menu={{
                  items: sets.map((set) => ({
                    key: set.id,
                    label: `${set.name}, ${counted(set.placeIds.length, 'place')}`,
                    onClick: () => addFrom(set),
                  })),
                }}
              >
                <Button loading={apply.isPending}>New from a set</Button>
              </Dropdown>
            )}
            {projectFile.button}
            <Button type="primary" icon={<PlusOutlined />} onClick={addNew} loading={add.isPending}>
              New project
            </Button>
          </div>
        </ForEditors>
      </div>
      {projectFile.question}
      <BackupWarning />
      <ShareNotice />
      {error && !data && <Failure error={error} again={() => void refetch()} />}
      {!data && !error && <Skeleton height={240} />}
      {data?.length === 0 && (
        <Empty title="No projects yet">
          A project holds pictures and the places they go to.{mayChange && ' Start with a new one.'}
        </Empty>
      )}
      <div className="project-grid">
        {data?.map((project) => (
          <article key={project.id} className="sheet project-card" aria-label={project.name}>
            <Cover project={project} />
            <div className="row spread project-line">
              <div>
                <h2 className="minor-title">
                  <NameField
                    name={project.name}
                    what="project"
                    onRename={
                      mayChange ? (name) => rename.mutateAsync({ id: project.id, name }).catch(note.failed) : null
                    }
                  />
                </h2>
                <span className="quiet small">
                  {counted(project.frameCount, 'frame')} · changed{' '}
                  {dayjs(project.changedAt).format('D MMM YYYY, HH:mm')}
                </span>
              </div>
              <div className="row" style={{ gap: 2 }}>
                <ForEditors>
                  <Button
                    type="text"
                    icon={<StepForwardOutlined />}
                    title="Begin the next one: with all that is set for this one, and other pictures"
                    aria-label={`Begin the next one after ${project.name}`}
                    onClick={() => next.mutate(project.id, { onSuccess: openNew, onError: note.failed })}
                  />
                  <Button
                    type="text"
                    icon={<CopyOutlined />}
                    title="Duplicate"
                    aria-label={`Duplicate ${project.name}`}
                    onClick={() => duplicate.mutateAsync(project.id).catch(note.failed)}
                  />
                </ForEditors>
                <Button
                  type="text"
                  icon={<DownloadOutlined />}
                  href={projectFileUrl(project.id)}
                  title="Save as a file, with its pictures, for another machine"
                  aria-label={`Save ${project.name} as a file`}
                />
                <ForEditors>
                  <Button
                    type="text"
                    icon={<DeleteOutlined />}
                    title="Delete"
                    aria-label={`Delete ${project.name}`}
                    onClick={() => removeProject(project)}
                  />
                </ForEditors>
              </div>
            </div>
          </article>
        ))}
      </div>
    </div>
  );
}
