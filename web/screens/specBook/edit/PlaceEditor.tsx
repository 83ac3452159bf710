import {
  anchoredAreas,
  type PlaceField,
  placeFields,
  placeProblems,
  provenanceOf,
  purposeWords,
  shapeWords,
} from '@inkwell/core/bookkeeping';
import {
  type Area,
  formatLabel,
  ImageFormatSchema,
  NumberSchema,
  type Place,
  type PlaceNumber,
  type Provenance,
  PurposeSchema,
  type SheetContent,
  type SheetVersion,
} from '@inkwell/core/model';
import { Checkbox, Input, Select } from 'antd';
import equal from 'fast-deep-equal';
import { useState } from 'react';
import { today } from '../../../parts/today.ts';
import { choicesOf } from '../../../places/PlaceFields.tsx';
import { CoveredFields, ShownPartFields } from './AreasFields.tsx';
import { DimensionsFields, type PlaceChange, type PutPlace } from './DimensionsFields.tsx';
import { FieldRow } from './FieldRow.tsx';
import { LimitFields, WishesFields } from './LimitFields.tsx';
import { PiecesFields } from './PiecesFields.tsx';
import { type AreaKey, drawnDimensions, PlaceDrawing } from './PlaceDrawing.tsx';
import { ShownWidths, WidthsField } from './ShownWidths.tsx';

/** A place with a change, without what that leaves out. */
function changedPlace(place: Place, change: PlaceChange): Place {
  const next = Object.entries({ ...place, ...change }).filter(([, value]) => value !== undefined);
  return Object.fromEntries(next) as Place;
}

/** Areas hang on the edges of their place: they stay there when it gets other sides. */
function withAreas(before: Place, after: Place): Place {
  const [then, now] = [drawnDimensions(before), drawnDimensions(after)];
  const isSane = now.width > 0 && now.height > 0;
  return equal(then, now) || !isSane ? after : { ...after, ...anchoredAreas(after, then, now) };
}

/** Numbers that were changed by hand were looked at today: what is said of where they are from stays, with that date. */
function checkedToday(before: Place, after: Place, sheet: SheetContent): Place {
  const numbers = NumberSchema.options.filter((number) => {
    const { value } = placeFields[number];
    return !equal(value(before), value(after));
  });
  if (numbers.length === 0) return after;
  const touched = numbers.map(
    (number) => [number, { ...provenanceOf(sheet, after, number), checkedOn: today() }] as const,
  );
  return { ...after, provenance: { ...after.provenance, ...Object.fromEntries(touched) } };
}

/** Everything that a place has, in a form, beside the place drawn to scale. */
export function PlaceEditor(props: {
  sheet: SheetContent;
  place: Place;
  versions: readonly SheetVersion[];
  onChange: (place: Place, step?: string) => void;
}) {
  const { sheet, place, versions, onChange } = props;
  const [chosen, setChosen] = useState<AreaKey | null>(null);
  const put: PutPlace = (change, step) =>
    onChange(checkedToday(place, withAreas(place, changedPlace(place, change)), sheet), step);
  const problems = placeProblems(place);
  const of = {
    sheet,
    place,
    versions,
    onProvenance: (number: PlaceNumber, provenance: Provenance, step?: string) =>
      onChange({ ...place, provenance: { ...place.provenance, [number]: provenance } }, step),
  };
  const row = (field: PlaceField) => ({ label: placeFields[field].label, problem: problems[field] });
  const numberRow = (number: PlaceNumber) => ({ ...row(number), number, of });
  const areas = { place, chosen, onChoose: setChosen, put };
  return (
    <div className="place-editor">
      <div className="edit-fields">
        <FieldRow {...row('name')}>
          <Input
            aria-label="Name of the place"
            maxLength={60}
            value={place.name}
            onChange={({ target }) => put({ name: target.value }, 'name')}
          />
        </FieldRow>
        <FieldRow {...row('purpose')}>
          <Select
            size="small"
            aria-label="Purpose"
            style={{ width: 180 }}
            value={place.purpose}
            onChange={(purpose) => put({ purpose })}
            options={PurposeSchema.options.map((value) => ({ value, label: purposeWords[value] }))}
          />
        </FieldRow>
        <FieldRow {...numberRow('dimensions')}>
          <DimensionsFields place={place} put={put} />
        </FieldRow>
        <FieldRow {...numberRow('formats')}>
          <Checkbox.Group
            aria-label="Formats it takes"
            value={place.formats}
            onChange={(formats) => put({ formats })}
            options={ImageFormatSchema.options.map((value) => ({ value, label: formatLabel[value] }))}
          />
        </FieldRow>
        <FieldRow {...numberRow('limit')}>
          <LimitFields place={place} put={put} />
        </FieldRow>
        <FieldRow {...numberRow('wishes')}>
          <WishesFields place={place} put={put} />
        </FieldRow>
        <FieldRow {...numberRow('shape')}>
          <Select
            size="small"
            aria-label="Shape"
            style={{ width: 180 }}
            value={place.shape}
            onChange={(shape) => put({ shape })}
            options={choicesOf(shapeWords)}
          />
        </FieldRow>
        <FieldRow {...numberRow('covered')}>
          <CoveredFields {...areas} />
        </FieldRow>
        <FieldRow {...numberRow('shownPart')}>
          <ShownPartFields {...areas} />
        </FieldRow>
        <FieldRow {...numberRow('shownWidths')}>
          <WidthsField widths={place.shownWidths} onChange={(shownWidths) => put({ shownWidths })} />
        </FieldRow>
        <FieldRow {...numberRow('group')}>
          <PiecesFields place={place} put={put} />
        </FieldRow>
        <FieldRow {...row('note')}>
          <Input.TextArea
            aria-label="Note"
            autoSize={{ minRows: 1, maxRows: 4 }}
            maxLength={500}
            value={place.note ?? ''}
            onChange={({ target }) => put({ note: target.value === '' ? undefined : target.value }, 'note')}
          />
        </FieldRow>
      </div>
      <div className="edit-drawing">
        <PlaceDrawing
          place={place}
          chosen={chosen}
          onChoose={setChosen}
          onMove={(key, area, step) => {
            const covered = place.covered.map((each, at) => (at === key ? area : each));
            put(key === 'shown' ? { shownPart: area } : { covered }, step);
          }}
          onDraw={(rect) => {
            const area: Area = { ...rect, shape: 'rectangle', reason: 'controls' };
            put({ covered: [...place.covered, area] });
            setChosen(place.covered.length);
          }}
          onRemove={(key) => {
            put(key === 'shown' ? { shownPart: undefined } : { covered: place.covered.filter((_, at) => at !== key) });
            setChosen(null);
          }}
        />
        <ShownWidths place={place} />
      </div>
    </div>
  );
}
