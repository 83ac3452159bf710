import type { SpecSheet } from '@inkwell/core/model';
import { Segmented, Select } from 'antd';
import type { ReactNode } from 'react';
import { usePlaces } from '../api/library/specBook.ts';
import { draftFrom, type PlaceDraft, sidesOfRatio } from './placeDraft.ts';

const measureWords: Record<PlaceDraft['measure'], string> = {
  sides: 'Width and height',
  ratio: 'Ratio and long edge',
  'free height': 'Free height',
};

export const choicesOf = <Value extends string>(words: Record<Value, string>) =>
  (Object.keys(words) as Value[]).map((value) => ({ value, label: words[value] }));

/** The fields of a draft that are typed. */
export type TextField = { [Key in keyof PlaceDraft]: PlaceDraft[Key] extends string ? Key : never }[keyof PlaceDraft];
export type Put = (change: Partial<PlaceDraft>) => void;

/** The place that a new one begins from. */
export function BeginFrom({ draft, sheets, put }: { draft: PlaceDraft; sheets: SpecSheet[]; put: Put }) {
  const places = usePlaces();
  return (
    <Select<string>
      size="small"
      showSearch={{ optionFilterProp: 'label' }}
      aria-label="Begin from"
      style={{ width: 320 }}
      value={draft.from?.name ?? 'nothing'}
      onChange={(id) => {
        const at = places.get(id);
        put(at ? { ...draftFrom(at.place, draft.sheet), keptIn: draft.keptIn } : { from: null });
      }}
      options={[
        { value: 'nothing', label: 'Nothing' },
        ...sheets.map((sheet) => ({
          label: sheet.name,
          options: sheet.places.map((place) => ({
            value: `${sheet.slug}/${place.slug}`,
            label: `${sheet.name} ${place.name}`,
          })),
        })),
      ]}
    />
  );
}

/** Dimensions in one of three ways. */
export function Measure(props: {
  draft: PlaceDraft;
  text: (field: TextField, label: string, width?: number) => ReactNode;
  put: Put;
}) {
  const { draft, text, put } = props;
  const sides = sidesOfRatio(draft);
  return (
    <div className="row">
      <Segmented<PlaceDraft['measure']>
        size="small"
        aria-label="How the dimensions are given"
        value={draft.measure}
        onChange={(measure) => put({ measure })}
        options={choicesOf(measureWords)}
      />
      {draft.measure === 'sides' && (
        <span className="row">
          {text('width', 'Width in px')} × {text('height', 'Height in px')} px
        </span>
      )}
      {draft.measure === 'ratio' && (
        <span className="row">
          {text('ratioWidth', 'Ratio, width', 60)} : {text('ratioHeight', 'Ratio, height', 60)} long edge
          {text('longEdge', 'Long edge in px')} px
          <span className="quiet">{sides && `= ${sides.width} × ${sides.height} px`}</span>
        </span>
      )}
      {draft.measure === 'free height' && (
        <span className="row">
          {text('width', 'Width in px')} wide, from {text('leastHeight', 'Least height in px')} to
          {text('greatestHeight', 'Greatest height in px')} px high
        </span>
      )}
    </div>
  );
}

const pieceWords: Record<PlaceDraft['pieces'], string> = {
  one: 'One picture',
  panels: 'Panels, swiped',
  tiles: 'Tiles',
  copied: 'As it began',
};
const postingWords: Record<PlaceDraft['posting'], string> = {
  'as read': 'uploaded as they are read',
  'last first': 'last tile first',
  'down the columns': 'down the columns',
};

/** Whether the place takes one picture or several pieces of one, and how they belong together. */
export function Pieces({ draft, text, put }: Parameters<typeof Measure>[0]) {
  const choices = choicesOf(pieceWords).filter(({ value }) => value !== 'copied' || draft.from?.group);
  return (
    <div className="row">
      <Segmented<PlaceDraft['pieces']>
        size="small"
        aria-label="Pieces"
        value={draft.pieces}
        onChange={(pieces) => put({ pieces })}
        options={choices}
      />
      {draft.pieces === 'panels' && <span className="row">at most {text('mostPanels', 'Most panels', 54)} panels</span>}
      {draft.pieces === 'tiles' && (
        <span className="row">
          {text('columns', 'Columns', 46)} × {text('rows', 'Rows', 46)} tiles, gaps of{' '}
          {text('gap', 'Gap in percent', 50)} %
          <Select
            size="small"
            aria-label="Order of uploading"
            value={draft.posting}
            style={{ width: 190 }}
            onChange={(posting) => put({ posting })}
            options={choicesOf(postingWords)}
          />
        </span>
      )}
    </div>
  );
}

/** A line of the form, with what is wrong with it. */
export function Field(props: { label: string; problem?: string | undefined; children: ReactNode }) {
  return (
    <>
      <span className="label">{props.label}</span>
      <div>{props.children}</div>
      {props.problem && (
        <span role="alert" className="place-form-problem small">
          {props.problem}
        </span>
      )}
    </>
  );
}
