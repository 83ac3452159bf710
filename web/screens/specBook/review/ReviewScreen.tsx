import './review.css';
import '../edit/SheetEditor.css';
import { problemWords, sheetDifferences, sheetProblems } from '@inkwell/core/bookkeeping';
import { placesById } from '@inkwell/core/model';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useSheetEffects, useSheets } from '../../../api/library/sheets.ts';
import { Failure, Skeleton } from '../../../parts/States.tsx';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';
import { isChanged, useSheetDrafts } from '../edit/sheetDraft.ts';
import { useEditedSheet } from '../edit/useEditedSheet.ts';
import { keepSavedBy, savedByName } from '../savedBy.ts';
import { Differences } from './Differences.tsx';
import { EffectLines, PairsWall } from './Effects.tsx';
import { NewerVersion } from './NewerVersion.tsx';

/** What is different, what that does to frames, and the way to save it. */
export function ReviewScreen() {
  const { id, sheet, draft, newer, isMissing, paths, error } = useEditedSheet();
  const { drop } = useSheetDrafts();
  const { make, save } = useSheets();
  const note = useUndoNote();
  const navigate = useNavigate();
  const [savedBy, setSavedBy] = useState(savedByName);
  const [why, setWhy] = useState('');
  const isNew = draft?.base === null;
  const problems = draft ? sheetProblems(draft.content) : [];
  const asked = draft && !isNew && problems.length === 0 ? draft.content : null;
  const { data: effects, error: unknown, refetch } = useSheetEffects(sheet?.own?.id, asked);
  if (error) return <Failure error={error} />;
  if (isMissing || (draft && !isChanged(draft) && !save.isPending)) {
    return (
      <div className="page">
        <p>Nothing is changed.</p>
        <Link to={sheet ? `/spec-book/${sheet.slug}` : '/spec-book'}>Back to the spec book</Link>
      </div>
    );
  }
  if (!draft) return <Skeleton height={500} />;
  const { base, before, content } = draft;
  const [problem] = problems;
  const words = { savedBy, note: why };
  const keep = async () => {
    keepSavedBy(savedBy);
    try {
      if (base === null) {
        const made = await make.mutateAsync({ content, words });
        navigate(`/spec-book/${made.slug}`);
        drop(id);
        return;
      }
      const saved = await save.mutateAsync({ id, version: base, content, words });
      if ('elsewhere' in saved) {
        note.warned('Not saved', 'The sheet was changed elsewhere meanwhile. Both versions are shown above.');
        return;
      }
      navigate(`/spec-book/${saved.done.slug}`);
      drop(id);
    } catch (failure) {
      note.failed(failure);
    }
  };
  const places = (sheetContent: typeof content) => placesById(sheet ? [{ ...sheetContent, slug: sheet.slug }] : []);
  return (
    <div className="review">
      <header>
        <h1>{isNew ? `Save ${content.name}` : `What changes in ${content.name}`}</h1>
        <Link to={paths.edit}>Back to the form</Link>
      </header>
      {newer && <NewerVersion id={id} draft={draft} newer={newer} />}
      {problem && (
        <p role="alert" className="edit-problem">
          {problemWords(problem)}
        </p>
      )}
      <section aria-label="Save it" className="review-save">
        <div>
          <span className="quiet small">Your name</span>
          <Input
            aria-label="Your name"
            maxLength={60}
            value={savedBy}
            onChange={({ target }) => setSavedBy(target.value)}
          />
        </div>
        <div>
          <span className="quiet small">Why, and where you read it</span>
          <Input
            aria-label="Why, and where you read it"
            maxLength={300}
            value={why}
            onChange={({ target }) => setWhy(target.value)}
          />
        </div>
      </section>
      {!isNew && (
        <section aria-label="What it does">
          <h2>What it does</h2>
          {unknown ? (
            <Failure error={unknown} again={() => void refetch()} />
          ) : effects ? (
            <EffectLines effects={effects} names={places(content)} />
          ) : (
            <Skeleton height={60} />
          )}
        </section>
      )}
      {effects && !isNew && (
        <PairsWall pairs={effects.pairs} count={effects.reshaped} before={places(before)} after={places(content)} />
      )}
      <section aria-label={isNew ? 'Its places' : 'What is different'}>
        <h2>{isNew ? 'Its places' : 'What is different'}</h2>
        <Differences
          difference={sheetDifferences(isNew ? { ...content, places: [] } : before, content)}
          then={base === null ? '' : `Version ${base}`}
          now={`Version ${(base ?? 0) + 1}`}
        />
      </section>
      <footer className="edit-foot review-foot">
        <span className="quiet">
          {isNew
            ? 'It becomes version 1. Every version is kept.'
            : `It becomes version ${(base ?? 0) + 1}; version ${base} is kept.`}
        </span>
        <span className="row">
          <Button onClick={() => navigate(paths.edit)}>Back</Button>
          <Button
            type="primary"
            loading={make.isPending || save.isPending}
            disabled={problems.length > 0 || newer !== null}
            onClick={keep}
          >
            {isNew ? 'Save the sheet' : `Save version ${(base ?? 0) + 1}`}
          </Button>
        </span>
      </footer>
    </div>
  );
}
