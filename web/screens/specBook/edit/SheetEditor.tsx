import './SheetEditor.css';
import { newPlaceSlug, problemWords, sheetProblems } from '@inkwell/core/bookkeeping';
import type { Place } from '@inkwell/core/model';
import { Button, Popconfirm } from 'antd';
import { useEffect } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { counted } from '../../../parts/counted.ts';
import { isTyping } from '../../../parts/isTyping.ts';
import { Empty, Failure, Skeleton } from '../../../parts/States.tsx';
import { NewerVersion } from '../review/NewerVersion.tsx';
import { PlaceEditor } from './PlaceEditor.tsx';
import { type Chosen, PlaceList } from './PlaceList.tsx';
import { SheetFields } from './SheetFields.tsx';
import { isChanged, useSheetDrafts } from './sheetDraft.ts';
import { useEditedSheet } from './useEditedSheet.ts';

/** Changes a sheet, or writes a new one: itself, and each of its places. */
export function SheetEditor() {
  const { id, sheet, versions, draft, newer, isMissing, paths, error, change } = useEditedSheet();
  const { undo, redo, drop } = useSheetDrafts();
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || isTyping(event.target)) return;
      event.preventDefault();
      if (event.shiftKey) redo(id);
      else undo(id);
    };
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, [id, undo, redo]);
  if (error) return <Failure error={error} />;
  if (isMissing) {
    return (
      <div className="page">
        <Empty title="No such sheet">
          A sheet that ships with the program stays as it is. Copy it as your own, and change the copy.
        </Empty>
      </div>
    );
  }
  if (!draft) return <Skeleton height={500} />;
  const { content, base, before } = draft;
  const at = Number(search.get('place') ?? '-1');
  const chosen: Chosen = content.places[at] ? at : null;
  const place = chosen === null ? undefined : content.places[chosen];
  const choose = (next: Chosen) => {
    const params = new URLSearchParams(search);
    if (next === null) params.delete('place');
    else params.set('place', String(next));
    setSearch(params, { replace: true });
  };
  const setPlace = (next: Place, step?: string) =>
    change(
      (now) => ({
        ...now,
        places: now.places.map((one, index) => (index === chosen ? named(next, now.places, before.places) : one)),
      }),
      step && `${step} of ${chosen}`,
    );
  const problems = sheetProblems(content);
  const [problem] = problems;
  const back = sheet ? `/spec-book/${sheet.slug}` : '/spec-book';
  return (
    <div className="sheet-editor">
      <header className="edit-head row spread wrap">
        <h1>{base === null ? 'A sheet of your own' : `Change ${before.name}`}</h1>
        <span className="quiet small">
          {base === null ? 'Not saved yet' : `On version ${base}`}; what you type is kept in this browser until you
          save.
        </span>
      </header>
      {newer && draft.base !== null && <NewerVersion id={id} draft={draft} newer={newer} />}
      <div className="edit-body">
        <PlaceList
          sheet={content}
          chosen={chosen}
          onChoose={choose}
          onChange={(places) => change((now) => ({ ...now, places }))}
        />
        <main className="edit-main">
          {place && chosen !== null ? (
            <PlaceEditor key={chosen} sheet={content} place={place} versions={versions} onChange={setPlace} />
          ) : (
            <SheetFields
              sheet={content}
              problems={problems}
              isNew={base === null}
              onChange={(next, step) => change(() => next, step)}
            />
          )}
        </main>
      </div>
      <footer className="edit-foot">
        <span role="status" className={problem ? 'edit-problem' : 'quiet'}>
          {problem
            ? `${problemWords(problem)}${problems.length > 1 ? ` ${problems.length - 1} more.` : ''}`
            : `${counted(content.places.length, 'place')}. ${isChanged(draft) ? 'Changed, not saved.' : 'Nothing is changed.'}`}
        </span>
        <span className="row wrap">
          <Button disabled={draft.past.length === 0} onClick={() => undo(id)}>
            Undo
          </Button>
          <Button disabled={draft.future.length === 0} onClick={() => redo(id)}>
            Redo
          </Button>
          <Popconfirm
            title="Throw away what is not saved?"
            okText="Throw away"
            cancelText="Keep it"
            onConfirm={() => {
              navigate(back);
              drop(id);
            }}
          >
            <Button>Throw away …</Button>
          </Popconfirm>
          <Button
            type="primary"
            disabled={problems.length > 0 || !isChanged(draft)}
            onClick={() => navigate(paths.review)}
          >
            {base === null ? 'Look it over and save …' : 'See what it does …'}
          </Button>
        </span>
      </footer>
    </div>
  );
}

/** A place that no version has yet takes its id from its name. */
function named(place: Place, all: readonly Place[], saved: readonly Place[]): Place {
  if (saved.some(({ slug }) => slug === place.slug)) return place;
  const others = all.filter(({ slug }) => slug !== place.slug);
  return { ...place, slug: newPlaceSlug(place.name, [...others, ...saved]) };
}
