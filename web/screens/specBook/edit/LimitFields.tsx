import {
  bytesOf,
  formatLabel,
  type ImageFormat,
  ImageFormatSchema,
  inUnit,
  type Limit,
  type Place,
  WeightUnitSchema,
  type Wishes,
} from '@inkwell/core/model';
import { Button, Checkbox, Select } from 'antd';
import { NumberField } from '../../../parts/fields/NumberField.tsx';
import type { PutPlace } from './DimensionsFields.tsx';

/** A limit in the unit in which a network says it. */
function LimitField({ name, limit, onChange }: { name: string; limit: Limit; onChange: (limit: Limit) => void }) {
  const value = inUnit(limit.bytes, limit.unit);
  return (
    <span className="row">
      <NumberField
        label=""
        name={name}
        unit={limit.unit}
        decimals={3}
        width={104}
        value={value}
        onChange={(typed) => onChange({ ...limit, bytes: bytesOf(typed, limit.unit) })}
      />
      <Select
        size="small"
        aria-label={`Unit of ${name}`}
        style={{ width: 70 }}
        value={limit.unit}
        onChange={(unit) => onChange({ unit, bytes: bytesOf(value, unit) })}
        options={WeightUnitSchema.options.map((unit) => ({ value: unit, label: unit }))}
      />
    </span>
  );
}

/** A limit that there may be, or not. */
function OptionalLimit(props: {
  name: string;
  words: string;
  limit: Limit | undefined;
  usual: Limit;
  onChange: (limit: Limit | undefined) => void;
}) {
  const { name, words, limit, usual, onChange } = props;
  return (
    <div className="row wrap">
      <Checkbox checked={limit !== undefined} onChange={({ target }) => onChange(target.checked ? usual : undefined)}>
        {words}
      </Checkbox>
      {limit && <LimitField name={name} limit={limit} onChange={onChange} />}
    </div>
  );
}

/** What files may weigh: one in any format, one in each, all of a post. */
export function LimitFields({ place, put }: { place: Place; put: PutPlace }) {
  const { limit, formatLimits = {}, postLimit, formats, group } = place;
  const setFormat = (format: ImageFormat, own: Limit | undefined) => {
    const { [format]: _, ...others } = formatLimits;
    const next = own ? { ...others, [format]: own } : others;
    put({ formatLimits: Object.keys(next).length > 0 ? next : undefined });
  };
  const named = ImageFormatSchema.options.filter((format) => formatLimits[format]);
  const rest = formats.filter((format) => !formatLimits[format]);
  return (
    <div className="edit-stack">
      <div className="row wrap">
        <LimitField name="Upload limit" limit={limit} onChange={(next) => put({ limit: next })} />
        <span className="quiet small">{group ? 'each; ' : ''}1 MB is 1,000,000 bytes, 1 MiB 1,048,576</span>
      </div>
      {named.map((format) => (
        <div key={format} className="row">
          <span style={{ width: 50 }}>{formatLabel[format]}</span>
          <LimitField
            name={`Upload limit of ${formatLabel[format]}`}
            limit={formatLimits[format] ?? limit}
            onChange={(own) => setFormat(format, own)}
          />
          <Button
            size="small"
            type="text"
            aria-label={`Take the limit of ${formatLabel[format]} out`}
            onClick={() => setFormat(format, undefined)}
          >
            Take out
          </Button>
        </div>
      ))}
      {rest.length > 0 && (
        <Select<ImageFormat>
          size="small"
          aria-label="Add a limit for one format"
          placeholder="Add a limit for one format"
          style={{ width: 220 }}
          value={null}
          onChange={(format) => setFormat(format, limit)}
          options={rest.map((format) => ({ value: format, label: formatLabel[format] }))}
        />
      )}
      <OptionalLimit
        name="Limit of a post"
        words="All files of a post together"
        limit={postLimit}
        usual={{ ...limit, bytes: limit.bytes * 2 }}
        onChange={(next) => put({ postLimit: next })}
      />
    </div>
  );
}

/** What a network recommends: formats and a weight. */
export function WishesFields({ place, put }: { place: Place; put: PutPlace }) {
  const { wishes = {}, limit } = place;
  const set = (change: { [Key in keyof Wishes]?: Wishes[Key] | undefined }) => {
    const { weight, formats } = { ...wishes, ...change };
    const next: Wishes = { ...(weight ? { weight } : {}), ...(formats && formats.length > 0 ? { formats } : {}) };
    put({ wishes: Object.keys(next).length > 0 ? next : undefined });
  };
  return (
    <div className="edit-stack">
      <Checkbox.Group
        aria-label="Recommended formats"
        value={wishes.formats ?? []}
        onChange={(formats) => set({ formats })}
        options={place.formats.map((value) => ({ value, label: formatLabel[value] }))}
      />
      <OptionalLimit
        name="Recommended weight"
        words="A file weighs at most"
        limit={wishes.weight}
        usual={{ ...limit, bytes: Math.max(1, Math.round(limit.bytes / 2)) }}
        onChange={(weight) => set({ weight })}
      />
    </div>
  );
}
