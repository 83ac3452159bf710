import './PlaceForm.css';
import { purposeWords } from '@inkwell/core/bookkeeping';
import {
  formatLabel,
  ImageFormatSchema,
  type KeptIn,
  type OwnPlace,
  type Place,
  PurposeSchema,
  WeightUnitSchema,
} from '@inkwell/core/model';
import { AutoComplete, Button, Checkbox, Input, Segmented, Select } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { useSpecBook } from '../api/library/specBook.ts';
import { BeginFrom, choicesOf, Field, Measure, Pieces, type Put, type TextField } from './PlaceFields.tsx';
import { draftFrom, emptyDraft, type PlaceDraft, type PlaceProblems, readDraft } from './placeDraft.ts';

const shapeWords: Record<Place['shape'], string> = {
  rectangle: 'Rectangle',
  rounded: 'Rounded corners',
  circle: 'Circle',
};

/** Makes a place, or changes one: any sides, formats and limit; begun from nothing or from another place. */
export function PlaceForm(props: {
  /** The place that is changed; its sheet stays. */
  changed?: Place;
  /** The place that a new one begins from. */
  from?: Place;
  /** The project that a new place can be meant for alone. */
  projectId?: string;
  /** Keeps what was written. */
  onDone: (place: OwnPlace, keptIn: KeptIn) => Promise<unknown>;
  onClose: () => void;
}) {
  const { changed, from, projectId, onDone, onClose } = props;
  const { data: sheets = [] } = useSpecBook();
  const own = sheets.filter((sheet) => sheet.slug.startsWith('own-')).map((sheet) => sheet.name);
  const [draft, setDraft] = useState<PlaceDraft>(() => {
    const sheet = own[0] ?? emptyDraft.sheet;
    const first = changed ?? from;
    if (first) return draftFrom(first, sheet);
    return { ...emptyDraft, sheet, keptIn: projectId ? 'project' : 'sheet' };
  });
  const [problems, setProblems] = useState<PlaceProblems>({});
  const [busy, setBusy] = useState(false);
  const section = useRef<HTMLElement>(null);
  useEffect(() => {
    section.current?.scrollIntoView({ block: 'center' });
    section.current?.querySelector<HTMLInputElement>('[data-first]')?.focus();
  }, []);
  const put: Put = (change) => {
    setDraft((before) => ({ ...before, ...change }));
    setProblems({});
  };
  const keep = async () => {
    const read = readDraft(draft, projectId);
    if ('problems' in read) return setProblems(read.problems);
    setBusy(true);
    await onDone(read.place, read.keptIn).finally(() => setBusy(false));
  };
  const text = (field: TextField, label: string, width = 84) => (
    <Input
      size="small"
      aria-label={label}
      style={{ width }}
      value={draft[field]}
      data-first={field === 'name' || undefined}
      onChange={(event) => put({ [field]: event.target.value })}
      onPressEnter={keep}
    />
  );
  return (
    <section ref={section} className="sheet place-form" aria-label={changed ? `Change ${changed.name}` : 'New place'}>
      <h2>{changed ? `Change ${changed.name}` : 'A place of your own'}</h2>
      <div className="place-form-fields">
        {!changed && (
          <Field label="Begin from">
            <BeginFrom draft={draft} sheets={sheets} put={put} />
          </Field>
        )}
        <Field label="Name" problem={problems.name}>
          {text('name', 'Name of the place', 320)}
        </Field>
        <Field label="Dimensions" problem={problems.measure}>
          <Measure draft={draft} text={text} put={put} />
        </Field>
        <Field label="Formats it takes" problem={problems.formats}>
          <Checkbox.Group
            value={draft.formats}
            onChange={(formats) => put({ formats })}
            options={ImageFormatSchema.options.map((value) => ({ value, label: formatLabel[value] }))}
          />
        </Field>
        <Field label="Upload limit" problem={problems.limit}>
          <div className="row">
            {text('limit', 'Upload limit')}
            <Select
              size="small"
              aria-label="Unit of the limit"
              value={draft.unit}
              style={{ width: 76 }}
              onChange={(unit) => put({ unit })}
              options={WeightUnitSchema.options.map((value) => ({ value, label: value }))}
            />
            <span className="quiet small">1 MB is 1,000,000 bytes; 1 MiB is 1,048,576</span>
          </div>
        </Field>
        <Field label="Shown as">
          <div className="row">
            <Select
              size="small"
              aria-label="Shape"
              value={draft.shape}
              style={{ width: 150 }}
              onChange={(shape) => put({ shape })}
              options={choicesOf(shapeWords)}
            />
            <Select
              size="small"
              aria-label="Purpose"
              value={draft.purpose}
              style={{ width: 160 }}
              onChange={(purpose) => put({ purpose })}
              options={PurposeSchema.options.map((value) => ({ value, label: purposeWords[value] }))}
            />
          </div>
        </Field>
        <Field label="In pieces" problem={problems.pieces}>
          <Pieces draft={draft} text={text} put={put} />
        </Field>
        <Field label="Shown how wide" problem={problems.shownWidths}>
          <div className="row">
            {text('shownWidths', 'Widths at which it is shown', 140)}
            <span className="quiet small">in px, with commas between; empty where you do not know</span>
          </div>
        </Field>
        {!changed && (
          <Field label="Keep it" problem={problems.sheet}>
            <div className="row">
              {projectId && (
                <Segmented<PlaceDraft['keptIn']>
                  size="small"
                  aria-label="Where it is kept"
                  value={draft.keptIn}
                  onChange={(keptIn) => put({ keptIn })}
                  options={[
                    { value: 'project', label: 'For this project only' },
                    { value: 'sheet', label: 'In a sheet of your own' },
                  ]}
                />
              )}
              {draft.keptIn === 'sheet' && (
                <AutoComplete
                  size="small"
                  aria-label="Name of the sheet"
                  style={{ width: 200 }}
                  value={draft.sheet}
                  onChange={(sheet) => put({ sheet })}
                  options={own.map((value) => ({ value }))}
                />
              )}
            </div>
          </Field>
        )}
      </div>
      <div className="row">
        <Button type="primary" loading={busy} onClick={keep}>
          {changed ? 'Save the change' : 'Add the place'}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
        {draft.from && draft.from.covered.length > 0 && (
          <span className="quiet small">Covered areas come along, scaled to the new sides.</span>
        )}
      </div>
    </section>
  );
}
