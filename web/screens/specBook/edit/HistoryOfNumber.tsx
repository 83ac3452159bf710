import { historyOf } from '@inkwell/core/bookkeeping';
import type { PlaceNumber, SheetVersion } from '@inkwell/core/model';
import { dayWords } from '../dateWords.ts';

/** What a number of a place has been in the versions of its sheet, the newest first. */
export function HistoryOfNumber(props: { versions: readonly SheetVersion[]; slug: string; number: PlaceNumber }) {
  const { versions, slug, number } = props;
  const history = historyOf(versions, slug, number);
  if (history.length === 0) return null;
  return (
    <ol className="edit-history small" aria-label="What it has been">
      {history.map(({ version, savedAt, savedBy, note, words, provenance, isChanged }) => (
        <li key={version}>
          <strong>{isChanged ? words || 'nothing' : 'looked at again'}</strong>{' '}
          <span className="quiet">
            version {version}, {dayWords(savedAt)}
            {savedBy && ` by ${savedBy}`}; {provenance.sureness} on {dayWords(provenance.checkedOn)}
            {provenance.source && `, ${provenance.source}`}
            {note && `. ${note}`}
          </span>
        </li>
      ))}
    </ol>
  );
}
