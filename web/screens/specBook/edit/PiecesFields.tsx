import { groupWords } from '@inkwell/core/bookkeeping';
import type { Group, Place } from '@inkwell/core/model';
import { uploadNumbers } from '@inkwell/core/splitting';
import { Input, Segmented, Select } from 'antd';
import { useState } from 'react';
import { NumberField } from '../../../parts/fields/NumberField.tsx';
import type { PutPlace } from './DimensionsFields.tsx';

type Kind = Group['kind'] | 'one';
const kinds: { value: Kind; label: string }[] = [
  { value: 'one', label: 'One picture' },
  { value: 'panels', label: 'Panels, swiped' },
  { value: 'block', label: 'Tiles of a post' },
  { value: 'quilt', label: 'Tiles of a page' },
];

const orders = {
  'as read': 'as they are read',
  'last first': 'the last first',
  'down the columns': 'down the columns',
};
type Order = keyof typeof orders;

/** In which order the tiles of a block are uploaded, by reading index. */
function orderOf(columns: number, rows: number, order: Order): number[] {
  const numbers = uploadNumbers(columns, rows, order);
  return numbers.map((_, index) => numbers.indexOf(index + 1));
}

const begun: Record<Kind, Group | undefined> = {
  one: undefined,
  panels: { kind: 'panels', min: 2, max: 10 },
  block: { kind: 'block', columns: 2, rows: 2, gap: 0.01, postingOrder: [0, 1, 2, 3] },
  quilt: { kind: 'quilt', columns: 3, minRows: 1, maxRows: 6, gap: 0.01, posting: 'last tile first' },
};

const mostTiles = 100;

/** The order of uploading as people count: which tile, row by row from 1, goes up first, second, … */
function OrderField(props: { block: Extract<Group, { kind: 'block' }>; onChange: (order: number[]) => void }) {
  const { block, onChange } = props;
  const [draft, setDraft] = useState<string | null>(null);
  const take = () => {
    setDraft(null);
    if (draft !== null) onChange(draft.split(/[,;\s]+/).flatMap((word) => (word === '' ? [] : [Number(word) - 1])));
  };
  return (
    <Input
      size="small"
      aria-label="Tiles in the order of uploading, counted row by row from 1"
      style={{ width: 150 }}
      value={draft ?? block.postingOrder.map((index) => index + 1).join(', ')}
      onChange={({ target }) => setDraft(target.value)}
      onBlur={take}
      onPressEnter={take}
      onKeyDown={(event) => {
        if (event.key === 'Escape') setDraft(null);
      }}
    />
  );
}

/** Whether a place takes one picture or several pieces of one, and how they belong together. */
export function PiecesFields({ place, put }: { place: Place; put: PutPlace }) {
  const { group } = place;
  const count = (label: string, name: string, value: number, set: (value: number) => void) => (
    <NumberField
      label={label}
      name={name}
      unit=""
      width={94}
      value={value}
      onChange={(typed) => set(Math.round(typed))}
    />
  );
  const gap = (now: number, set: (gap: number) => void) => (
    <NumberField
      label="Gap"
      name="Gap of a tile’s width"
      unit="%"
      decimals={2}
      width={94}
      value={now * 100}
      onChange={(value) => set(value / 100)}
    />
  );
  const tiles = (block: Extract<Group, { kind: 'block' }>, columns: number, rows: number, order: Order) => {
    const isDrawn = columns >= 1 && rows >= 1 && columns * rows <= mostTiles;
    if (isDrawn) put({ group: { ...block, columns, rows, postingOrder: orderOf(columns, rows, order) } });
  };
  return (
    <div className="edit-stack">
      <Segmented<Kind>
        size="small"
        aria-label="In pieces"
        value={group?.kind ?? 'one'}
        options={kinds}
        onChange={(kind) => put({ group: begun[kind], ...(begun[kind] ? { otherDimensions: undefined } : {}) })}
      />
      {group?.kind === 'panels' && (
        <div className="row">
          {count('From', 'Panels', group.min, (min) => put({ group: { ...group, min } }))}
          {count('to', 'Panels', group.max, (max) => put({ group: { ...group, max } }))}
        </div>
      )}
      {group?.kind === 'block' && (
        <div className="row wrap">
          {count('Columns', 'Tiles', group.columns, (columns) => tiles(group, columns, group.rows, 'as read'))}
          {count('Rows', 'Tiles', group.rows, (rows) => tiles(group, group.columns, rows, 'as read'))}
          {gap(group.gap, (next) => put({ group: { ...group, gap: next } }))}
          <Select<Order>
            size="small"
            aria-label="Order of uploading"
            placeholder="Order of uploading"
            style={{ width: 170 }}
            value={
              (Object.keys(orders) as Order[]).find(
                (order) => `${orderOf(group.columns, group.rows, order)}` === `${group.postingOrder}`,
              ) ?? null
            }
            onChange={(order) => tiles(group, group.columns, group.rows, order)}
            options={(Object.keys(orders) as Order[]).map((value) => ({ value, label: orders[value] }))}
          />
          <OrderField block={group} onChange={(postingOrder) => put({ group: { ...group, postingOrder } })} />
        </div>
      )}
      {group?.kind === 'quilt' && (
        <div className="row wrap">
          {count('Columns', 'Tiles', group.columns, (columns) => put({ group: { ...group, columns } }))}
          {count('Rows', 'Least', group.minRows, (minRows) => put({ group: { ...group, minRows } }))}
          {count('to', 'Most rows', group.maxRows, (maxRows) => put({ group: { ...group, maxRows } }))}
          {gap(group.gap, (next) => put({ group: { ...group, gap: next } }))}
          <Select
            size="small"
            aria-label="Order of uploading"
            style={{ width: 150 }}
            value={group.posting}
            onChange={(posting) => put({ group: { ...group, posting } })}
            options={(['first tile first', 'last tile first'] as const).map((value) => ({ value, label: value }))}
          />
        </div>
      )}
      {group && <span className="quiet small">{groupWords(group)}</span>}
    </div>
  );
}
