import './ChooseScreen.css';
import { anyPlace, asksForAnything, findPlaces, purposeWords } from '@inkwell/core/bookkeeping';
import {
  type Frame,
  FrameSettingsSchema,
  type Original,
  type PlaceOfNetwork,
  type Purpose,
  PurposeSchema,
  type SpecSheet,
} from '@inkwell/core/model';
import { Button, ConfigProvider, Segmented } from 'antd';
import { useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { z } from 'zod';
import { useMay } from '../../api/access/workspaces.ts';
import { useSheets } from '../../api/library/sheets.ts';
import { usePlaces, useSpecBook } from '../../api/library/specBook.ts';
import { useChoosing } from '../../api/projects/projects.ts';
import { counted } from '../../parts/counted.ts';
import { DropArea } from '../../parts/DropArea.tsx';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { Failure, Skeleton } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { PlaceFilters } from '../../places/PlaceFilters.tsx';
import { PlaceForm } from '../../places/PlaceForm.tsx';
import { useOpenProject } from '../ProjectLayout.tsx';
import { Library, PictureList } from './PictureList.tsx';
import { type Grouping, type PlaceGroup, PlaceGroupList } from './PlaceGroupList.tsx';
import { PlaceSets } from './PlaceSets.tsx';
import { useChosen } from './useChosen.ts';

function grouped(by: Grouping, sheets: SpecSheet[], found: readonly PlaceOfNetwork[]): PlaceGroup[] {
  const groups: PlaceGroup[] =
    by === 'network'
      ? sheets.map((sheet) => ({
          key: sheet.slug,
          title: sheet.name,
          sheet,
          places: found.filter((one) => one.network.slug === sheet.slug),
        }))
      : PurposeSchema.options.map((purpose: Purpose) => ({
          key: purpose,
          title: purposeWords[purpose],
          places: found.filter((one) => one.place.purpose === purpose),
        }));
  return groups.filter(({ places }) => places.length > 0);
}

const TickedSchema = z.object({ ticked: z.array(z.string()) });

const noSheets: SpecSheet[] = [];

/** So many groups are drawn at once: a book can have hundreds of sheets. */
const mostGroups = 40;

/** Chooses the pictures of a project and the places each of them goes to. */
export function ChooseScreen() {
  const project = useOpenProject();
  const { data: all = noSheets, error } = useSpecBook(project);
  const known = usePlaces(project);
  // A sheet that is meant for another project is of no use here, unless frames were copied from there.
  const sheets = useMemo(
    () =>
      all.filter(
        ({ slug, projectId }) =>
          !projectId || projectId === project.id || project.frames.some((one) => one.placeId.startsWith(`${slug}/`)),
      ),
    [all, project],
  );
  const [query, setQuery] = useState(anyPlace);
  const [isAll, setIsAll] = useState(false);
  const found = useMemo(() => {
    // What is put away is only shown where the project has frames there.
    const used = new Set(project.frames.map(({ placeId }) => placeId));
    const ids = new Set(findPlaces(sheets, query).map(({ id }) => id));
    const isAsked = asksForAnything(query);
    return [...known.values()].filter(({ id }) => ids.has(id) || (!isAsked && used.has(id)));
  }, [sheets, known, query, project.frames]);
  const { addPlace } = useSheets();
  const [writing, setWriting] = useState(false);
  const choosing = useChoosing(project.id);
  const note = useUndoNote();
  const mayChange = useMay('editor');
  const [by, setBy] = useState<Grouping>('network');
  const { state } = useLocation();
  // Whoever comes from pictures that were selected on the bench means those.
  const [unticked, setUnticked] = useState<ReadonlySet<string>>(() => {
    const { data } = TickedSchema.safeParse(state);
    return new Set(data ? project.originals.flatMap(({ id }) => (data.ticked.includes(id) ? [] : [id])) : []);
  });
  const { originals, has, others } = useChosen(project);
  const selected = originals.filter((one) => !unticked.has(one.id));

  const change = async (wanted: PlaceOfNetwork[], on: boolean) => {
    const pairs = selected.flatMap(({ id }) => wanted.map((one) => ({ originalId: id, placeId: one.id })));
    try {
      if (on) {
        await choosing.frames.mutateAsync({ add: pairs });
        return;
      }
      const gone = await choosing.frames.mutateAsync({ remove: pairs });
      if (gone.length === 0) return;
      note.done(gone.length === 1 ? 'One frame was taken out.' : `${gone.length} frames were taken out.`, () =>
        choosing.frames.mutateAsync({ add: gone.map(asItWas) }),
      );
    } catch (error) {
      note.failed(error);
    }
  };
  const addOriginal = (id: string) => choosing.originals.mutateAsync({ add: [id] }).catch(note.failed);
  const takeOut = async (original: Original) => {
    try {
      const gone = await choosing.originals.mutateAsync({ remove: [original.id] });
      note.done(`“${original.name}” was taken out of the project.`, async () => {
        await choosing.originals.mutateAsync({ add: [original.id] });
        await choosing.frames.mutateAsync({ add: gone.map(asItWas) });
      });
    } catch (error) {
      note.failed(error);
    }
  };
  const frameCount = project.frames.length;
  const groups = grouped(by, sheets, found);

  return (
    <div className="choose">
      <section className="choose-pictures" aria-label="Pictures">
        <h2>Pictures</h2>
        <DropArea onOriginal={({ id }) => addOriginal(id)} />
        <PictureList
          project={project}
          originals={originals}
          unticked={unticked}
          onTick={setUnticked}
          onTakeOut={takeOut}
        />
        <ForEditors>
          <Library originals={others} onAdd={addOriginal} />
        </ForEditors>
      </section>

      <section className="choose-places" aria-label="Places">
        <div className="row spread choose-top">
          <div>
            <h2>Places</h2>
            {mayChange && <span className="quiet small">{tickWords(selected.length, originals.length)}</span>}
          </div>
          <span className="row">
            <ForEditors>
              <Button onClick={() => setWriting(true)}>New place …</Button>
            </ForEditors>
            <Segmented<Grouping>
              value={by}
              onChange={setBy}
              options={[
                { label: 'By network', value: 'network' },
                { label: 'By purpose', value: 'purpose' },
              ]}
            />
          </span>
        </div>
        {writing && (
          <PlaceForm
            projectId={project.id}
            onClose={() => setWriting(false)}
            onDone={async (place, keptIn) => {
              try {
                const { placeId } = await addPlace.mutateAsync({ place, keptIn });
                setWriting(false);
                // It was made to be used: the ticked pictures get it at once.
                const given = selected.map(({ id }) => ({ originalId: id, placeId }));
                if (given.length > 0) await choosing.frames.mutateAsync({ add: given });
              } catch (failure) {
                note.failed(failure);
              }
            }}
          />
        )}
        {error && <Failure error={error} />}
        {sheets.length === 0 && !error && <Skeleton height={400} />}
        <div className="choose-find">
          <PlaceFilters query={query} onChange={setQuery} />
          <ForEditors>
            <PlaceSets project={project} />
          </ForEditors>
        </div>
        {sheets.length > 0 && groups.length === 0 && <p className="quiet">No place answers that.</p>}
        <ConfigProvider componentDisabled={!mayChange}>
          <div className="choose-groups">
            {(isAll ? groups : groups.slice(0, mostGroups)).map((group) => (
              <PlaceGroupList key={group.key} group={group} by={by} has={has} selected={selected} onChange={change} />
            ))}
          </div>
        </ConfigProvider>
        {!isAll && groups.length > mostGroups && (
          <Button onClick={() => setIsAll(true)}>Show the other {groups.length - mostGroups}</Button>
        )}
      </section>

      <footer className="choose-foot">
        <span>{frameCount === 0 ? 'No frames yet.' : `${counted(frameCount, 'frame')} in this project.`}</span>
        <Link to={`/projects/${project.id}`}>
          <Button type="primary" disabled={frameCount === 0}>
            Frame them
          </Button>
        </Link>
      </footer>
    </div>
  );
}

/** What a tick at a place does. @param ticked so many pictures are ticked @param all so many there are */
function tickWords(ticked: number, all: number): string {
  if (ticked === 0) return 'Tick a picture first.';
  if (ticked < all) return `A tick gives the place to the ${ticked} ticked of ${all} pictures.`;
  return `A tick gives the place to ${ticked === 1 ? 'the picture' : `all ${ticked} pictures`}.`;
}

/** What brings a frame back that was taken out. */
const asItWas = ({ originalId, placeId, ...frame }: Frame) => ({
  originalId,
  placeId,
  settings: FrameSettingsSchema.parse(frame),
});
