import { provenanceOf } from '@inkwell/core/bookkeeping';
import {
  type Place,
  type PlaceNumber,
  type Provenance,
  type SheetContent,
  type SheetVersion,
  SurenessOfNumberSchema,
} from '@inkwell/core/model';
import { Button, Input, Select } from 'antd';
import { type ReactNode, useId, useState } from 'react';
import { dateWords } from '../dateWords.ts';
import { HistoryOfNumber } from './HistoryOfNumber.tsx';

/** What a row that is about a number of the network has to know. */
export interface NumberOf {
  sheet: SheetContent;
  place: Place;
  versions: readonly SheetVersion[];
  onProvenance: (number: PlaceNumber, provenance: Provenance, step?: string) => void;
}

/** A line of the form: its label, what is typed, what is wrong with that; and of a number, where it is from. */
export function FieldRow(props: {
  label: string;
  problem?: string | undefined;
  number?: PlaceNumber;
  of?: NumberOf;
  children: ReactNode;
}) {
  const { label, problem, number, of, children } = props;
  const id = useId();
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot be laid out in a grid of its own in all browsers
    <div className="edit-row" role="group" aria-labelledby={id}>
      <span className="edit-label" id={id}>
        {label}
      </span>
      <div className="edit-value">
        {children}
        {problem && (
          <p role="alert" className="small edit-problem">
            {problem}
          </p>
        )}
        {number && of && <ProvenanceLine label={label} number={number} of={of} />}
      </div>
    </div>
  );
}

/** Where a number is from, in a line; pressed, it can be changed, and what the number was before is shown. */
function ProvenanceLine({ label, number, of }: { label: string; number: PlaceNumber; of: NumberOf }) {
  const { sheet, place, versions, onProvenance } = of;
  const [open, setOpen] = useState(false);
  const provenance = provenanceOf(sheet, place, number);
  const isOwn = place.provenance?.[number] !== undefined;
  const set = (change: Partial<Provenance>, step?: string) => onProvenance(number, { ...provenance, ...change }, step);
  return (
    <>
      <Button
        type="text"
        size="small"
        className="edit-provenance"
        aria-expanded={open}
        aria-label={`Where ${label} is from`}
        onClick={() => setOpen(!open)}
      >
        {isOwn ? '' : 'As the sheet: '}
        {dateWords(provenance.checkedOn)}, {provenance.sureness}
        {provenance.source && `, ${provenance.source}`}
      </Button>
      {open && (
        <div className="edit-source">
          <div className="row wrap">
            <DateField
              value={provenance.checkedOn}
              name={`${label} checked on`}
              onChange={(checkedOn) => set({ checkedOn })}
            />
            <Select
              size="small"
              aria-label={`How sure ${label} is`}
              style={{ width: 190 }}
              value={provenance.sureness}
              onChange={(sureness) => set({ sureness })}
              options={SurenessOfNumberSchema.options.map((value) => ({ value, label: value }))}
            />
          </div>
          <Input
            size="small"
            aria-label={`Source of ${label}`}
            placeholder="Where it was read: a note or a link"
            maxLength={300}
            value={provenance.source}
            onChange={({ target }) => set({ source: target.value }, `source of ${number}`)}
          />
          <HistoryOfNumber versions={versions} slug={place.slug} number={number} />
        </div>
      )}
    </>
  );
}

/** A date, typed or picked as the browser has it. */
export function DateField(props: { value: string; name: string; onChange: (date: string) => void }) {
  const { value, name, onChange } = props;
  return (
    <input
      type="date"
      className="edit-date"
      aria-label={name}
      value={value}
      onChange={({ target }) => {
        if (target.value !== '') onChange(target.value);
      }}
    />
  );
}
