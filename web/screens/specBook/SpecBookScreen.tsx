import './SpecBookScreen.css';
import { dimensionsWords, formatsWords, groupWords, limitWords } from '@inkwell/core/bookkeeping';
import type { LearnedUpload, Place, SheetFinding, SpecSheet } from '@inkwell/core/model';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { useState } from 'react';
import { useLearnedUploads } from '../../api/files/survival.ts';
import { useOwnPlaces } from '../../api/library/ownPlaces.ts';
import { useSheetFindings } from '../../api/library/sheetFindings.ts';
import { useSpecBook } from '../../api/library/specBook.ts';
import { counted } from '../../parts/counted.ts';
import { Failure, FailureLine, Skeleton } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { PlaceForm } from '../../places/PlaceForm.tsx';
import { PlaceOutline } from '../../places/PlaceOutline.tsx';

import { LearnedLine } from './LearnedLine.tsx';
import { SheetFindings } from './SheetFindings.tsx';

/** One scale for all outlines, so that their sizes can be compared by eye. */
const outlineScale = 0.055;

/** What is being written down: a new place, begun from another or not, or a change to one. */
type Writing = { from?: Place; changed?: Place };

function PlaceCard(props: { place: Place; learned: LearnedUpload | undefined; onWrite: (writing: Writing) => void }) {
  const { place, learned, onWrite } = props;
  const { remove, restore } = useOwnPlaces();
  const note = useUndoNote();
  const { own } = place;
  const covered = [...new Set(place.covered.map((area) => area.reason))];
  return (
    <li className="spec-place">
      <div className="spec-shape">
        <PlaceOutline place={place} scale={outlineScale} />
      </div>
      <div>
        <h3>{place.name}</h3>
        <div className="spec-number">
          {dimensionsWords(place)} px{place.group ? ' each' : ''}
        </div>
        <div>
          {limitWords(place)} · {formatsWords(place)}
        </div>
        <div className="quiet small">
          {place.shape !== 'rectangle' && (
            <div>{place.shape === 'circle' ? 'Shown in a circle' : 'Shown with rounded corners'}</div>
          )}
          {place.shownWidths.length > 0 && <div>Shown {place.shownWidths.join(' and ')} px wide</div>}
          {covered.length > 0 && (
            <div>
              <span className="spec-key covered" /> Covered by {covered.join(', ')}
            </div>
          )}
          {place.shownPart && (
            <div>
              <span className="spec-key shown" /> {place.shownPart.width} × {place.shownPart.height} px always shown (
              {place.shownPart.reason})
            </div>
          )}
          {place.group && <div>{groupWords(place.group)}</div>}
          {place.note && <div>{place.note}</div>}
          {learned && <LearnedLine learned={learned} place={place} />}
        </div>
        <div className="spec-ways-out">
          {own ? (
            <>
              <Button size="small" aria-label={`Change ${place.name}`} onClick={() => onWrite({ changed: place })}>
                Change
              </Button>
              <Button
                size="small"
                aria-label={`Remove ${place.name}`}
                onClick={() =>
                  note.after(remove.mutateAsync(own.id), `“${place.name}” was removed.`, () =>
                    restore.mutateAsync(own.id),
                  )
                }
              >
                Remove
              </Button>
            </>
          ) : (
            <Button
              size="small"
              type="text"
              aria-label={`Copy ${place.name}`}
              title="Begin a place of your own with these numbers"
              onClick={() => onWrite({ from: place })}
            >
              Copy …
            </Button>
          )}
        </div>
      </div>
    </li>
  );
}

function Sheet(props: {
  sheet: SpecSheet;
  findings: readonly SheetFinding[];
  learned: readonly LearnedUpload[];
  onWrite: (writing: Writing) => void;
}) {
  const { sheet, findings, learned, onWrite } = props;
  const age = dayjs().diff(dayjs(sheet.checkedOn), 'day');
  return (
    <section aria-labelledby={`sheet-${sheet.slug}`} className="spec-sheet sheet">
      <header className="row spread wrap">
        <div className="row" style={{ alignItems: 'baseline' }}>
          <h2 id={`sheet-${sheet.slug}`}>{sheet.name}</h2>
          <span className="quiet">{sheet.kind}</span>
        </div>
        <span className="quiet small">
          Numbers checked on {dayjs(sheet.checkedOn).format('D MMM YYYY')}
          {age > 0 && `, ${counted(age, 'day')} ago`}
          {sheet.afterUpload && ` · afterwards scaled to ${sheet.afterUpload.longEdge} px and recompressed`}
        </span>
      </header>
      <SheetFindings sheet={sheet} findings={findings} />
      <ul className="spec-places">
        {sheet.places.map((place) => (
          <PlaceCard
            key={place.slug}
            place={place}
            learned={learned.find(({ placeId }) => placeId === `${sheet.slug}/${place.slug}`)}
            onWrite={onWrite}
          />
        ))}
      </ul>
    </section>
  );
}

/** Every place of every network, with its numbers. */
export function SpecBookScreen() {
  const { data, error, refetch } = useSpecBook();
  const { data: findings = [], error: unmeasured, refetch: askAgain } = useSheetFindings();
  const { data: learned = [], error: unlearned, refetch: askForUploads } = useLearnedUploads();
  const { add, save } = useOwnPlaces();
  const note = useUndoNote();
  const [writing, setWriting] = useState<Writing | null>(null);
  const count = data?.reduce((sum, sheet) => sum + sheet.places.length, 0);
  return (
    <div className="page">
      <div className="row spread">
        <h1>Spec book</h1>
        <Button onClick={() => setWriting({})}>New place …</Button>
      </div>
      <p className="quiet" style={{ marginTop: 4 }}>
        {data ? `${count} places in ${data.length} sheets; single places are drawn at one scale. ` : ''}1 MB is
        1,000,000 bytes; 1 MiB is 1,048,576.
      </p>
      {writing && (
        <PlaceForm
          key={writing.changed?.slug ?? writing.from?.slug ?? 'new'}
          {...writing}
          onClose={() => setWriting(null)}
          onDone={async (place, keptIn) => {
            const own = writing.changed?.own;
            try {
              if (own) await save.mutateAsync({ ...own, place });
              else await add.mutateAsync({ place, keptIn });
              setWriting(null);
            } catch (failure) {
              note.failed(failure);
            }
          }}
        />
      )}
      {error && <Failure error={error} again={() => void refetch()} />}
      {unmeasured && <FailureLine error={unmeasured} again={() => void askAgain()} />}
      {unlearned && <FailureLine error={unlearned} again={() => void askForUploads()} />}
      {!data && !error && <Skeleton height={500} />}
      {data && (
        <nav aria-label="Networks" className="row wrap spec-ways">
          {data.map((sheet) => (
            <a key={sheet.slug} href={`#sheet-${sheet.slug}`}>
              {sheet.name}
            </a>
          ))}
        </nav>
      )}
      {data?.map((sheet) => (
        <Sheet key={sheet.slug} sheet={sheet} findings={findings} learned={learned} onWrite={setWriting} />
      ))}
    </div>
  );
}
