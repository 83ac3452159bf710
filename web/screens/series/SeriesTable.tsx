import type { OpenProject, Original, WordsItem } from '@inkwell/core/model';
import { hasOwnWords, pastedCells, wordsOn } from '@inkwell/core/series';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useRef } from 'react';
import { Link } from 'react-router';
import { useMay } from '../../api/access/workspaces.ts';
import { previewUrl, useOriginalActions } from '../../api/library/originals.ts';
import { counted } from '../../parts/counted.ts';
import { NameField } from '../../parts/fields/NameField.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import type { LetteringHands } from '../bench/lettering/useLettering.ts';
import { SeriesCell } from './SeriesCell.tsx';
import { useCellHands } from './useCellHands.ts';

const rowHeight = 76;
/** So many rows that are not in sight are there as well. */
const more = 4;

/** The cells of a series. Only rows in sight are drawn. */
export function SeriesTable(props: {
  project: OpenProject;
  items: readonly WordsItem[];
  hands: LetteringHands;
  /** What is wrong with the words of each picture, by its id. */
  findings: ReadonlyMap<string, string[]>;
  placesOf: (originalId: string) => readonly string[];
}) {
  const { project, items, hands, findings, placesOf } = props;
  const { originals } = project;
  const holder = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: originals.length,
    getScrollElement: () => holder.current,
    getItemKey: (index) => originals[index]?.id ?? index,
    estimateSize: () => rowHeight,
    overscan: more,
  });
  const cells = useCellHands(hands);
  const goTo = (row: number, column: number) => {
    if (row < 0 || row >= originals.length) return;
    rows.scrollToIndex(row);
    const find = () => holder.current?.querySelector<HTMLElement>(`[data-cell="${row} ${column}"]`);
    const there = find();
    if (there) there.focus();
    // A row that is not drawn yet is there a moment after it was scrolled to.
    else requestAnimationFrame(() => find()?.focus());
  };
  const now = useRef({ items, originals });
  now.current = { items, originals };
  /** Fills cells from one on, to the right and down, as a spreadsheet does. @returns whether it was more than the text of one cell */
  const paste = (row: number, column: number, text: string): boolean => {
    const pasted = pastedCells(text);
    cells.fill(
      (pasted ?? []).flatMap((texts, down) =>
        texts.flatMap((said, right) => {
          const [original, item] = [now.current.originals[row + down], now.current.items[column + right]];
          return original && item ? [{ itemId: item.id, originalId: original.id, text: said }] : [];
        }),
      ),
    );
    return pasted !== null;
  };
  return (
    <div ref={holder} className="series-table" style={{ '--series-items': items.length } as React.CSSProperties}>
      <table aria-label="Words of each picture" aria-rowcount={originals.length + 1}>
        <thead className="series-heads">
          <tr className="series-line">
            <th scope="col">Picture</th>
            {items.map(({ id, name, text }) => (
              <th scope="col" key={id} title={`The design says “${text}”`}>
                <strong>{name}</strong>
              </th>
            ))}
            <th scope="col">Places</th>
          </tr>
        </thead>
        <tbody style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {rows.getVirtualItems().map(({ index, start, key }) => {
            const original = originals[index];
            if (!original) return null;
            return (
              <tr
                key={key}
                ref={rows.measureElement}
                data-index={index}
                aria-rowindex={index + 2}
                className="series-line series-row"
                style={{ transform: `translateY(${start}px)`, minHeight: rowHeight }}
              >
                <PictureHead original={original} />
                {items.map((item, column) => {
                  const { text } = wordsOn(item, original.id);
                  return (
                    <SeriesCell
                      key={item.id}
                      cell={`${index} ${column}`}
                      label={`${item.name} on ${original.name}`}
                      text={text}
                      isOwn={hasOwnWords(item, original.id)}
                      onWrite={(said) => cells.write({ itemId: item.id, originalId: original.id, text: said })}
                      onFollow={() => cells.follow(item.id, original.id)}
                      onGo={(down) => goTo(index + down, column)}
                      onPaste={(said) => paste(index, column, said)}
                    />
                  );
                })}
                <td className="series-places small">
                  <Link to={`/projects/${project.id}?original=${original.id}`}>
                    {counted(placesOf(original.id).length, 'place')}
                  </Link>
                  <RowFindings findings={findings.get(original.id) ?? none} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

const none: string[] = [];

function RowFindings({ findings }: { findings: readonly string[] }) {
  if (findings.length === 0) return null;
  return (
    <ul className="series-findings">
      {findings.map((finding) => (
        <li key={finding}>{finding}</li>
      ))}
    </ul>
  );
}

const PictureHead = memo(function PictureHead({ original }: { original: Original }) {
  const { rename } = useOriginalActions();
  const note = useUndoNote();
  const mayChange = useMay('editor');
  return (
    <th scope="row" className="series-picture">
      <img alt="" decoding="async" src={previewUrl(original, 160)} />
      <NameField
        name={original.name}
        what="picture"
        onRename={mayChange ? (name) => rename.mutateAsync({ id: original.id, name }).catch(note.failed) : null}
      />
    </th>
  );
});
