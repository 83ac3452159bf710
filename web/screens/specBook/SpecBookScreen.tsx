import { api } from '../../api/client.ts';
import './SpecBookScreen.css';
import { anyPlace, asksForAnything, findPlaces, overdueDays } from '@inkwell/core/bookkeeping';
import type { SpecSheet } from '@inkwell/core/model';
import { Button } from 'antd';
import { useDeferredValue, useMemo, useState } from 'react';
import { Link, NavLink, useParams } from 'react-router';
import { useLearnedUploads } from '../../api/files/survival.ts';
import { useSheetFindings } from '../../api/library/sheetFindings.ts';
import { useSpecBook } from '../../api/library/specBook.ts';
import { counted } from '../../parts/counted.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { Empty, Failure, FailureLine, Skeleton } from '../../parts/States.tsx';
import { today } from '../../parts/today.ts';
import { PlaceFilters } from '../../places/PlaceFilters.tsx';
import { dateWords } from './dateWords.ts';
import { PlaceCard } from './PlaceCard.tsx';
import { SheetView } from './SheetView.tsx';

/** So many places that were found are drawn. */
const mostFound = 120;

/** All sheets on the left; one of them, or the places that were looked for, on the right. */
export function SpecBookScreen() {
  const { slug } = useParams();
  const { data: sheets, error, refetch } = useSpecBook();
  const { data: findings = [], error: unmeasured, refetch: askAgain } = useSheetFindings();
  const { data: learned = [], error: unlearned, refetch: askForUploads } = useLearnedUploads();
  const [query, setQuery] = useState(anyPlace);
  const asked = useDeferredValue(query);
  const found = useMemo(() => (sheets && asksForAnything(asked) ? findPlaces(sheets, asked) : null), [sheets, asked]);
  const chosen =
    sheets?.find((sheet) => sheet.slug === slug) ?? (slug ? undefined : sheets?.find((one) => !one.isAway));
  return (
    <div className="book">
      <BookList
        sheets={sheets}
        chosen={found ? null : (chosen ?? null)}
        filters={<PlaceFilters query={query} onChange={setQuery} />}
        onChoose={() => setQuery(anyPlace)}
      />
      <div className="book-right">
        {error && <Failure error={error} again={() => void refetch()} />}
        {unmeasured && <FailureLine error={unmeasured} again={() => void askAgain()} />}
        {unlearned && <FailureLine error={unlearned} again={() => void askForUploads()} />}
        {!sheets && !error && <Skeleton height={500} />}
        {sheets && found && (
          <section className="spec-sheet sheet" aria-label="Places that were found">
            <header>
              <h2>
                {found.length === 0 ? 'No place answers that' : counted(found.length, 'place')}
                {found.length > mostFound && <span className="quiet small"> the first {mostFound} are shown</span>}
              </h2>
            </header>
            <ul className="spec-places">
              {found.slice(0, mostFound).map(({ id, network, place }) => {
                const sheet = sheets.find((one) => one.slug === network.slug);
                return (
                  sheet && (
                    <PlaceCard
                      key={id}
                      sheet={sheet}
                      place={place}
                      learned={learned.find(({ placeId }) => placeId === id)}
                    >
                      <Link className="small" to={`/spec-book/${network.slug}`} onClick={() => setQuery(anyPlace)}>
                        {network.name}
                      </Link>
                    </PlaceCard>
                  )
                );
              })}
            </ul>
          </section>
        )}
        {sheets && !found && chosen && (
          <SheetView key={chosen.slug} sheet={chosen} sheets={sheets} findings={findings} learned={learned} />
        )}
        {sheets && !found && !chosen && (
          <Empty title="No such sheet">Choose one on the left, or begin one of your own.</Empty>
        )}
      </div>
    </div>
  );
}

function BookList(props: {
  sheets: readonly SpecSheet[] | undefined;
  chosen: SpecSheet | null;
  filters: React.ReactNode;
  onChoose: () => void;
}) {
  const { sheets = [], chosen, filters, onChoose } = props;
  const shown = sheets.filter(({ isAway }) => !isAway);
  const away = sheets.filter(({ isAway }) => isAway);
  const places = shown.reduce((sum, sheet) => sum + sheet.places.length, 0);
  const line = (sheet: SpecSheet) => (
    <SheetLine key={sheet.slug} sheet={sheet} isChosen={sheet === chosen} onChoose={onChoose} />
  );
  return (
    <aside className="book-left" aria-label="Sheets">
      <h1>Spec book</h1>
      <p className="quiet small">
        {counted(places, 'place')} in {counted(shown.length, 'sheet')}
      </p>
      {filters}
      <nav aria-label="Sheets of the book">
        <ul className="book-sheets">{shown.map(line)}</ul>
        {away.length > 0 && (
          <details>
            <summary className="small">{away.length} put away</summary>
            <ul className="book-sheets">{away.map(line)}</ul>
          </details>
        )}
      </nav>
      <div className="book-tools row wrap">
        <ForEditors>
          <Link to="/spec-book/new">
            <Button size="small" tabIndex={-1}>
              New sheet …
            </Button>
          </Link>
          <Link to="/spec-book/import">
            <Button size="small" tabIndex={-1}>
              Import …
            </Button>
          </Link>
        </ForEditors>
        <a className="small" href={`${api}/spec-book/file?as=json`}>
          All as JSON
        </a>
        <a className="small" href={`${api}/spec-book/file?as=csv`}>
          All as a table
        </a>
      </div>
    </aside>
  );
}

function SheetLine({ sheet, isChosen, onChoose }: { sheet: SpecSheet; isChosen: boolean; onChoose: () => void }) {
  const overdue = overdueDays(sheet, today());
  return (
    <li>
      <NavLink
        to={`/spec-book/${sheet.slug}`}
        className="book-line"
        aria-current={isChosen ? 'page' : undefined}
        onClick={onChoose}
      >
        <span>
          <strong>{sheet.name}</strong>
          {sheet.own && <span className="book-own">yours</span>}
        </span>
        <span className="quiet small">
          {counted(sheet.places.length, 'place')} ·{' '}
          <span className={overdue === null ? '' : 'spec-overdue'}>{dateWords(sheet.checkedOn)}</span>
        </span>
      </NavLink>
    </li>
  );
}
