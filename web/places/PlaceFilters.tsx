import './PlaceFilters.css';
import {
  anyPlace,
  asksForAnything,
  type PlaceQuery,
  purposeWords,
  type RatioKind,
  ratioKindWords,
} from '@inkwell/core/bookkeeping';
import { formatLabel, type ImageFormat, ImageFormatSchema, type Purpose, PurposeSchema } from '@inkwell/core/model';
import { Button, Input, Select } from 'antd';

/** What places are looked for by: words, a purpose, a shape, a format. */
export function PlaceFilters({ query, onChange }: { query: PlaceQuery; onChange: (query: PlaceQuery) => void }) {
  const put = (change: Partial<PlaceQuery>) => onChange({ ...query, ...change });
  return (
    <search className="place-filters">
      <Input
        size="small"
        type="search"
        aria-label="Find places"
        placeholder="Find places: story, 1080 × 1350, banner"
        value={query.text}
        onChange={({ target }) => put({ text: target.value })}
      />
      <div className="row">
        <Select<Purpose | null>
          size="small"
          aria-label="Purpose"
          value={query.purpose}
          onChange={(purpose) => put({ purpose })}
          options={[
            { value: null, label: 'Purpose' },
            ...PurposeSchema.options.map((value) => ({ value, label: purposeWords[value] })),
          ]}
        />
        <Select<RatioKind | null>
          size="small"
          aria-label="Ratio"
          value={query.ratio}
          onChange={(ratio) => put({ ratio })}
          options={[
            { value: null, label: 'Ratio' },
            ...(Object.keys(ratioKindWords) as RatioKind[]).map((value) => ({ value, label: ratioKindWords[value] })),
          ]}
        />
        <Select<ImageFormat | null>
          size="small"
          aria-label="Format"
          value={query.format}
          onChange={(format) => put({ format })}
          options={[
            { value: null, label: 'Format' },
            ...ImageFormatSchema.options.map((value) => ({ value, label: formatLabel[value] })),
          ]}
        />
        {asksForAnything(query) && (
          <Button size="small" type="text" onClick={() => onChange(anyPlace)}>
            Clear
          </Button>
        )}
      </div>
    </search>
  );
}
