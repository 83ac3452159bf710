import { onAllPictures } from '@inkwell/core/carrying';
import { type OpenProject, type PlaceSet, PlaceSetFileSchema, type ProjectSettings } from '@inkwell/core/model';
import { useQueryClient } from '@tanstack/react-query';
import { Button, Dropdown, Input } from 'antd';
import { useState } from 'react';
import { api } from '../../api/client.ts';
import { usePlaceSets } from '../../api/library/placeSets.ts';
import { saveProject, useChoosing } from '../../api/projects/projects.ts';
import { counted } from '../../parts/counted.ts';
import { ImportButton } from '../../parts/ImportButton.tsx';
import { FailureLine } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';

/** The places of a project's frames, each once, in their order. */
const placesOf = (project: OpenProject): string[] => [...new Set(project.frames.map(({ placeId }) => placeId))];

/** What of a project a set keeps. */
const keptOf = ({ pattern, finishId, lettering, usualAim }: OpenProject) => ({
  pattern,
  finishId,
  // A set is for other pictures: what is laid over some only is laid over all of them.
  lettering: lettering.map(onAllPictures),
  aim: usualAim,
});

/** Sets of places: used for this project in one press, made of what is chosen, written to files and read from them. */
export function PlaceSets({ project }: { project: OpenProject }) {
  const { query, sets, add, addFile, change, remove, restore, apply } = usePlaceSets();
  const choosing = useChoosing(project.id);
  const client = useQueryClient();
  const note = useUndoNote();
  const [name, setName] = useState<string | null>(null);
  const chosen = placesOf(project);
  const saveBack = async (settings: Partial<ProjectSettings>, version: number) => {
    const saved = await saveProject(project.id, version, settings);
    await client.invalidateQueries({ queryKey: ['project', project.id] });
    if ('elsewhere' in saved) note.warned('Not saved', 'The project was changed in another window. Try again.');
  };
  const use = async (set: PlaceSet) => {
    const { finishId, lettering, pattern, usualPlaces, usualAim } = project;
    try {
      const { project: after, missing } = await apply.mutateAsync({
        id: set.id,
        projectId: project.id,
        version: project.version,
      });
      const added = after.frames.filter(({ id }) => !project.frames.some((frame) => frame.id === id));
      if (missing.length > 0) {
        const words = missing.length === 1 ? 'One place is' : `${missing.length} places are`;
        note.warned(`${words} not in the spec book any more`, missing.join(', '));
      }
      note.done(`“${set.name}” is used: ${counted(added.length, 'frame')} more.`, async () => {
        if (added.length > 0) await choosing.frames.mutateAsync({ remove: added });
        await saveBack({ finishId, lettering, pattern, usualPlaces, usualAim }, after.version);
      });
    } catch (error) {
      note.failed(error);
    }
  };
  const keep = async () => {
    const typed = (name ?? '').trim();
    if (typed === '') return setName(null);
    // Enter takes it, and so does leaving the field afterwards.
    if (add.isPending) return;
    try {
      await add.mutateAsync({ name: typed, placeIds: chosen, ...keptOf(project) });
      setName(null);
    } catch (error) {
      note.failed(error);
    }
  };
  const overwrite = async (set: PlaceSet) => {
    const saved = await change.mutateAsync({ ...set, placeIds: chosen, ...keptOf(project) }).catch(note.failed);
    if (saved && 'elsewhere' in saved) {
      note.warned('Not saved', `“${saved.elsewhere.name}” was changed in another window. Look at it again.`);
    } else if (saved) {
      note.done(`“${set.name}” keeps ${counted(chosen.length, 'place')} now.`, () =>
        change.mutateAsync({ ...set, version: saved.done.version }),
      );
    }
  };
  return (
    <section className="choose-sets" aria-label="Sets of places">
      <span className="quiet">Sets</span>
      {query.error && <FailureLine error={query.error} again={() => void query.refetch()} />}
      {sets.map((set) => (
        <span key={set.id} className="choose-set">
          <Button
            size="small"
            loading={apply.isPending && apply.variables.id === set.id}
            title={`Give the pictures of this project ${counted(set.placeIds.length, 'place')}, and what goes with them`}
            onClick={() => use(set)}
          >
            Use {set.name} <span className="quiet small">{set.placeIds.length}</span>
          </Button>
          <Dropdown
            trigger={['click']}
            menu={{
              items: [
                { key: 'file', label: <a href={`${api}/place-sets/${set.id}/file`}>Save as a file</a> },
                {
                  key: 'over',
                  label: 'Keep what is chosen here instead',
                  disabled: chosen.length === 0,
                  onClick: () => overwrite(set),
                },
                {
                  key: 'away',
                  label: 'Take out',
                  onClick: () =>
                    note.after(remove.mutateAsync(set.id), `“${set.name}” was taken out.`, () =>
                      restore.mutateAsync(set.id),
                    ),
                },
              ],
            }}
          >
            <Button size="small" type="text" aria-label={`More about ${set.name}`}>
              …
            </Button>
          </Dropdown>
        </span>
      ))}
      {name === null ? (
        <Button size="small" disabled={chosen.length === 0} onClick={() => setName('')}>
          Keep these places as a set …
        </Button>
      ) : (
        <Input
          autoFocus
          size="small"
          aria-label="Name of the set"
          placeholder="Autumn launch"
          style={{ width: 170 }}
          maxLength={60}
          value={name}
          onChange={({ target }) => setName(target.value)}
          onPressEnter={keep}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key === 'Escape') setName(null);
          }}
        />
      )}
      <ImportButton
        schema={PlaceSetFileSchema}
        what="set of places"
        onRead={(file) => addFile.mutateAsync(file).catch(note.failed)}
      />
      {project.usualPlaces.length > 0 && (
        <span className="quiet small">
          Every picture that comes in gets {counted(project.usualPlaces.length, 'place')}.{' '}
          <Button
            size="small"
            type="link"
            onClick={() => saveBack({ usualPlaces: [] }, project.version).catch(note.failed)}
          >
            Not any more
          </Button>
        </span>
      )}
    </section>
  );
}
