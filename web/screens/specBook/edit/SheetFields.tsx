import { type SheetField, type SheetProblem, sheetFields } from '@inkwell/core/bookkeeping';
import { type AfterUpload, AfterUploadSchema, type SheetContent, SurenessOfNumberSchema } from '@inkwell/core/model';
import { Checkbox, Input, Select } from 'antd';
import { useEffect, useRef } from 'react';
import { NumberField } from '../../../parts/fields/NumberField.tsx';
import { DateField, FieldRow } from './FieldRow.tsx';

const usualAfter: AfterUpload = {
  longEdge: 2048,
  kernel: 'lanczos3',
  format: 'jpeg',
  quality: 80,
  chroma: '4:2:0',
  colours: 'converted',
};

type Change = { [Key in keyof SheetContent]?: SheetContent[Key] | undefined };

/** What a sheet says of its network, beside its places. */
export function SheetFields(props: {
  sheet: SheetContent;
  problems: readonly SheetProblem[];
  isNew: boolean;
  onChange: (sheet: SheetContent, step?: string) => void;
}) {
  const { sheet, problems, isNew, onChange } = props;
  const holder = useRef<HTMLDivElement>(null);
  // A new sheet is named first.
  useEffect(() => {
    if (isNew) holder.current?.querySelector('input')?.select();
  }, [isNew]);
  const put = (change: Change, step?: string) => {
    const next = Object.entries({ ...sheet, ...change }).filter(([, value]) => value !== undefined);
    onChange(Object.fromEntries(next) as SheetContent, step);
  };
  const row = (field: SheetField) => ({
    label: sheetFields[field].label,
    problem: problems.find((one) => one.place === null && one.field === field)?.message,
  });
  const { afterUpload: after, otherSides } = sheet;
  return (
    <div className="edit-fields" ref={holder}>
      <FieldRow {...row('name')}>
        <Input
          aria-label="Name of the sheet"
          maxLength={40}
          value={sheet.name}
          onChange={({ target }) => put({ name: target.value }, 'name')}
        />
      </FieldRow>
      <FieldRow {...row('kind')}>
        <Input
          aria-label="Kind of network"
          maxLength={60}
          value={sheet.kind}
          onChange={({ target }) => put({ kind: target.value }, 'kind')}
        />
      </FieldRow>
      <FieldRow {...row('checkedOn')}>
        <div className="row wrap">
          <DateField name="Checked on" value={sheet.checkedOn} onChange={(checkedOn) => put({ checkedOn })} />
          <span className="quiet small">for all numbers that have no date of their own</span>
        </div>
      </FieldRow>
      <FieldRow {...row('recheckDays')}>
        <div className="row wrap">
          <NumberField
            label=""
            name="Check again"
            unit="days"
            width={104}
            value={sheet.recheckDays}
            onChange={(days) => put({ recheckDays: Math.round(days) })}
          />
          <span className="quiet small">after that, its frames carry a caution</span>
        </div>
      </FieldRow>
      <FieldRow {...row('source')}>
        <Input
          aria-label="Source"
          placeholder="Where the numbers were read: a note or a link"
          maxLength={300}
          value={sheet.source}
          onChange={({ target }) => put({ source: target.value }, 'source')}
        />
      </FieldRow>
      <FieldRow {...row('sureness')}>
        <Select
          size="small"
          aria-label="How sure"
          style={{ width: 200 }}
          value={sheet.sureness}
          onChange={(sureness) => put({ sureness })}
          options={SurenessOfNumberSchema.options.map((value) => ({ value, label: value }))}
        />
      </FieldRow>
      <FieldRow {...row('otherSides')}>
        <div className="row wrap">
          <Checkbox
            checked={otherSides !== undefined}
            onChange={({ target }) => put({ otherSides: target.checked ? { least: 320, most: 4096 } : undefined })}
          >
            The network takes files of other dimensions in a place’s ratio
          </Checkbox>
          {otherSides &&
            (['least', 'most'] as const).map((end) => (
              <NumberField
                key={end}
                label={end === 'least' ? 'from' : 'to'}
                name="Other dimensions"
                unit="px"
                width={110}
                value={otherSides[end]}
                onChange={(value) => put({ otherSides: { ...otherSides, [end]: Math.round(value) } })}
              />
            ))}
        </div>
      </FieldRow>
      <FieldRow {...row('afterUpload')}>
        <Checkbox
          checked={after !== undefined}
          onChange={({ target }) => put({ afterUpload: target.checked ? usualAfter : undefined })}
        >
          What the network does to a picture is known
        </Checkbox>
        {after && <AfterFields after={after} onChange={(afterUpload) => put({ afterUpload })} />}
      </FieldRow>
    </div>
  );
}

function AfterFields({ after, onChange }: { after: AfterUpload; onChange: (after: AfterUpload) => void }) {
  const { kernel, format, chroma, colours } = AfterUploadSchema.shape;
  const choice = <Key extends 'kernel' | 'format' | 'chroma' | 'colours'>(
    key: Key,
    label: string,
    options: readonly AfterUpload[Key][],
  ) => (
    <Select<AfterUpload[Key]>
      size="small"
      aria-label={label}
      title={label}
      style={{ width: 140 }}
      value={after[key]}
      onChange={(value) => onChange({ ...after, [key]: value })}
      options={options.map((value) => ({ value, label: value }))}
    />
  );
  return (
    <div className="row wrap">
      <NumberField
        label="Long edge"
        unit="px"
        value={after.longEdge}
        onChange={(value) => onChange({ ...after, longEdge: Math.round(value) })}
      />
      <NumberField
        label="Quality"
        unit=""
        width={104}
        value={after.quality}
        onChange={(value) => onChange({ ...after, quality: Math.round(value) })}
      />
      {choice('format', 'Format that it keeps', format.unwrap().options)}
      {choice('chroma', 'Colour detail that it keeps', chroma.options)}
      {choice('kernel', 'How it scales', kernel.unwrap().options)}
      {choice('colours', 'What it does with a profile', colours.unwrap().options)}
    </div>
  );
}
