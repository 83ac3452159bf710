import { overdueDays } from '@inkwell/core/bookkeeping';
import type { LearnedUpload, SheetFinding, SpecSheet } from '@inkwell/core/model';
import { Button, Dropdown } from 'antd';
import { Link, useNavigate } from 'react-router';
import { useMay } from '../../api/access/workspaces.ts';
import { api } from '../../api/client.ts';
import { useSheets } from '../../api/library/sheets.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { today } from '../../parts/today.ts';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { dateWords, dayWords } from './dateWords.ts';
import { useSheetDrafts } from './edit/sheetDraft.ts';
import { PlaceCard } from './PlaceCard.tsx';
import { SheetFindings } from './SheetFindings.tsx';

/** One network's sheet: how old its numbers are, what can be done with it, and its places. */
export function SheetView(props: {
  sheet: SpecSheet;
  sheets: readonly SpecSheet[];
  findings: readonly SheetFinding[];
  learned: readonly LearnedUpload[];
}) {
  const { sheet, sheets, findings, learned } = props;
  const drafts = useSheetDrafts((state) => state.drafts);
  const mayChange = useMay('editor');
  const overdue = overdueDays(sheet, today());
  const isBegun = sheet.own !== undefined && drafts[sheet.own.id] !== undefined;
  const shown = sheet.places.filter(({ isAway }) => !isAway);
  const away = sheet.places.filter(({ isAway }) => isAway);
  const card = (place: SpecSheet['places'][number]) => (
    <PlaceCard
      key={place.slug}
      sheet={sheet}
      place={place}
      learned={learned.find(({ placeId }) => placeId === `${sheet.slug}/${place.slug}`)}
    >
      {sheet.own && mayChange && (
        <Link
          className="small"
          to={`/spec-book/${sheet.slug}/edit?place=${sheet.places.indexOf(place)}`}
          aria-label={`Change ${place.name}`}
        >
          Change
        </Link>
      )}
    </PlaceCard>
  );
  return (
    <section aria-labelledby={`sheet-${sheet.slug}`} className="spec-sheet sheet">
      <header>
        <div className="row spread wrap">
          <div className="row" style={{ alignItems: 'baseline' }}>
            <h2 id={`sheet-${sheet.slug}`}>{sheet.name}</h2>
            <span className="quiet">{sheet.kind}</span>
          </div>
          <SheetActions sheet={sheet} sheets={sheets} />
        </div>
        <p className="quiet small spec-about">
          <span className={overdue === null ? '' : 'spec-overdue'} title={dayWords(sheet.checkedOn)}>
            Numbers {dateWords(sheet.checkedOn)}
          </span>
          {sheet.own && `, ${sheet.sureness}`}
          {sheet.source && `, ${sheet.source}`}
          {sheet.own && ` · version ${sheet.own.version}`}
          {sheet.afterUpload && ` · afterwards scaled to ${sheet.afterUpload.longEdge} px and recompressed`}
          {isBegun && ' · a change of it is begun and not saved'}
        </p>
      </header>
      <SheetFindings sheet={sheet} findings={findings} />
      {shown.length === 0 && <p className="quiet">This sheet has no places yet.</p>}
      <ul className="spec-places">{shown.map(card)}</ul>
      {away.length > 0 && (
        <details className="spec-away">
          <summary>{away.length === 1 ? 'One place' : `${away.length} places`} put away</summary>
          <ul className="spec-places">{away.map(card)}</ul>
        </details>
      )}
    </section>
  );
}

function SheetActions({ sheet, sheets }: { sheet: SpecSheet; sheets: readonly SpecSheet[] }) {
  const { putAway, move } = useSheets();
  const note = useUndoNote();
  const navigate = useNavigate();
  const mayChange = useMay('editor');
  const { slug, name, own, isAway = false } = sheet;
  const shelf = sheets.filter((one) => (one.isAway ?? false) === isAway);
  const at = shelf.findIndex((one) => one.slug === slug);
  const moveTo = (before: string | null) => move.mutateAsync({ slug, before }).catch(note.failed);
  const put = (away: boolean) =>
    note.after(
      putAway.mutateAsync({ slug, isAway: away }),
      away ? `“${name}” was put away. Its frames stay; it is not offered any more.` : `“${name}” is back.`,
      () => putAway.mutateAsync({ slug, isAway: !away }),
    );
  const files = [
    { key: 'json', label: <a href={`${api}/spec-book/file?sheet=${slug}&as=json`}>Save as JSON</a> },
    { key: 'csv', label: <a href={`${api}/spec-book/file?sheet=${slug}&as=csv`}>Save as a table (CSV)</a> },
  ];
  const changes = [
    { key: 'up', label: 'Move up', disabled: at <= 0, onClick: () => moveTo(shelf[at - 1]?.slug ?? null) },
    {
      key: 'down',
      label: 'Move down',
      disabled: at >= shelf.length - 1,
      onClick: () => moveTo(shelf[at + 2]?.slug ?? null),
    },
    { key: 'away', label: isAway ? 'Bring back' : 'Put away', onClick: () => put(!isAway) },
  ];
  return (
    <div className="row wrap">
      {own && mayChange && (
        <Link to={`/spec-book/${slug}/edit`}>
          <Button size="small" type="primary" tabIndex={-1}>
            Change …
          </Button>
        </Link>
      )}
      {own && own.version > 1 && (
        <Link to={`/spec-book/${slug}/versions`}>
          <Button size="small" tabIndex={-1}>
            Versions
          </Button>
        </Link>
      )}
      <ForEditors>
        <Button
          size="small"
          type={own ? 'default' : 'primary'}
          title="Begin a sheet of your own with these numbers"
          onClick={() => navigate(`/spec-book/new?from=${slug}`)}
        >
          Copy as your own …
        </Button>
      </ForEditors>
      <Dropdown trigger={['click']} menu={{ items: mayChange ? [...files, ...changes] : files }}>
        <Button size="small">More</Button>
      </Dropdown>
    </div>
  );
}
