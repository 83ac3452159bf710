import { useVirtualizer } from '@tanstack/react-virtual';
import { type RefObject, useEffect, useRef } from 'react';
import { previewUrl } from '../../api/library/originals.ts';
import { FrameCell } from './FrameCell.tsx';
import { type Cell, isShown, type Overview, type ShownFrames } from './overview.ts';

/** Of a cell, and of the heads of rows and columns, in CSS pixels. */
const sides = { cell: 96, head: 46, rowHead: 138 };
/** So many rows and columns that are not in sight are there as well. */
const more = 2;

const cellId = ({ row, column }: Cell) => `look-${row}-${column}`;

/** The overview of frames. Only what is in sight is drawn, and its pictures are asked for in the order in which they come there. */
export function OverviewTable(props: {
  overview: Overview;
  shown: ShownFrames;
  chosen: Cell | null;
  /** Takes the keys. */
  grid: RefObject<HTMLTableElement | null>;
  onChoose: (cell: Cell) => void;
  onOpen: (cell: Cell) => void;
}) {
  const { overview, shown, chosen, grid, onChoose, onOpen } = props;
  const holder = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: overview.rows.length,
    getScrollElement: () => holder.current,
    getItemKey: (index) => overview.rows[index]?.original.id ?? index,
    estimateSize: () => sides.cell,
    paddingStart: sides.head,
    scrollPaddingStart: sides.head,
    overscan: more,
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: overview.columns.length,
    getScrollElement: () => holder.current,
    getItemKey: (index) => columnKey(overview, index),
    estimateSize: () => sides.cell,
    paddingStart: sides.rowHead,
    scrollPaddingStart: sides.rowHead,
    overscan: more,
  });
  const [row = 0, column = 0] = [chosen?.row, chosen?.column];
  useEffect(() => {
    rows.scrollToIndex(row);
    columns.scrollToIndex(column);
  }, [rows, columns, row, column]);
  const across = columns.getVirtualItems();
  return (
    <div ref={holder} className="look-table">
      <table
        ref={grid}
        // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a table whose cells are chosen by keys is a grid.
        role="grid"
        tabIndex={0}
        aria-label="Frames"
        aria-rowcount={overview.rows.length + 1}
        aria-colcount={overview.columns.length + 1}
        aria-activedescendant={chosen ? cellId(chosen) : undefined}
        style={{ width: columns.getTotalSize(), height: rows.getTotalSize() }}
      >
        <thead className="look-heads" style={{ height: sides.head }}>
          <tr aria-rowindex={1}>
            <th scope="col" aria-colindex={1} className="look-corner" style={{ width: sides.rowHead }}>
              <span className="visually-hidden">Picture</span>
            </th>
            {across.map(({ index, start }) => {
              const at = overview.columns[index];
              return (
                <th
                  key={columnKey(overview, index)}
                  scope="col"
                  aria-colindex={index + 2}
                  className="look-place"
                  style={{ left: start, width: sides.cell }}
                  title={at ? `${at.network.name} ${at.place.name}` : ''}
                >
                  <span className="quiet">{at?.network.name}</span>
                  <span>{at?.place.name}</span>
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {rows.getVirtualItems().map(({ index, start, key }) => {
            const line = overview.rows[index];
            if (!line) return null;
            const { original, cells } = line;
            return (
              <tr key={key} aria-rowindex={index + 2} className="look-row" style={{ top: start, height: sides.cell }}>
                <th scope="row" aria-colindex={1} className="look-original" style={{ width: sides.rowHead }}>
                  <img alt="" decoding="async" src={previewUrl(original, 160)} />
                  <span title={original.name}>{original.name}</span>
                </th>
                {across.map(({ index: at, start: left }) => {
                  const cell = { row: index, column: at };
                  const frame = cells[at] ?? null;
                  return (
                    <FrameCell
                      key={columnKey(overview, at)}
                      id={cellId(cell)}
                      column={at + 2}
                      left={left}
                      side={sides.cell}
                      frame={frame}
                      isChosen={chosen?.row === index && chosen.column === at}
                      isFaint={frame !== null && !isShown[shown](frame)}
                      onChoose={() => {
                        onChoose(cell);
                        grid.current?.focus({ preventScroll: true });
                      }}
                      onOpen={() => onOpen(cell)}
                    />
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

const columnKey = ({ columns }: Overview, index: number): string => {
  const at = columns[index];
  return at ? `${at.network.slug}/${at.place.slug}` : String(index);
};
