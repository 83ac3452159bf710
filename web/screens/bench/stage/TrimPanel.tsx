import { type Rect, rectWithin } from '@inkwell/core/geometry';
import type { Original, Trim } from '@inkwell/core/model';
import { Button, Checkbox, Segmented, Slider } from 'antd';
import { useEffect, useState } from 'react';
import { sentenceOf } from '../../../api/client.ts';
import { useTrimProposal } from '../../../api/library/originals.ts';
import { NumberField } from '../../../parts/fields/NumberField.tsx';
import { smallestTrim } from '../../../stage/tools.ts';

const firstTolerance = 12;

/** Edges are rounded, not lengths: two rounded lengths could reach a pixel past the picture. */
export function wholePixels({ left, top, width, height }: Rect): Trim {
  const [x, y] = [Math.round(left), Math.round(top)];
  return { left: x, top: y, width: Math.round(left + width) - x, height: Math.round(top + height) - y };
}

const isSame = (one: Trim, other: Trim) =>
  one.left === other.left && one.top === other.top && one.width === other.width && one.height === other.height;

/** Trims an original to its content: a box proposed from its pixels, to be accepted, adjusted in numbers or by its handles, or taken away. */
export function TrimPanel(props: {
  original: Original;
  /** What is shown on the stage meanwhile. */
  draft: Trim | null;
  onDraft: (trim: Trim | null) => void;
  onAccept: (trim: Trim | null) => void;
  onClose: () => void;
}) {
  const { original, draft, onDraft, onAccept, onClose } = props;
  const [tolerance, setTolerance] = useState(firstTolerance);
  const [shadow, setShadow] = useState(true);
  const { data, error, isFetching } = useTrimProposal(original.id, { tolerance, shadow: shadow ? 'kept' : 'left' });
  // The body first, where it is less than all that lies on the margin: stray bits are seldom wanted.
  const [part, setPart] = useState<'body' | 'all'>('body');
  const hasBoth = data?.body && data.trim && !isSame(data.body, data.trim);
  const isBody = part === 'body' && Boolean(hasBoth);
  useEffect(() => {
    if (data) onDraft(part === 'body' ? (data.body ?? data.trim) : data.trim);
  }, [data, part, onDraft]);

  const shown: Trim = draft ?? { left: 0, top: 0, width: original.width, height: original.height };
  const adjust = (change: Partial<Trim>) => {
    const { left, top, width, height } = rectWithin({ ...shown, ...change }, original, smallestTrim);
    onDraft(wholePixels({ left, top, width, height }));
  };
  const number = (label: 'Left' | 'Top' | 'Width' | 'Height') => {
    const key = label.toLowerCase() as keyof Trim;
    return (
      <NumberField
        key={label}
        name="Trim"
        label={label}
        unit="px"
        value={shown[key]}
        onChange={(value) => adjust({ [key]: value })}
      />
    );
  };
  return (
    <section className="trim-fields" aria-label="Trim">
      <span className="trim-tolerance">
        <span id="trim-tolerance">Tolerance</span>
        <Slider
          min={2}
          max={80}
          defaultValue={firstTolerance}
          disabled={isBody}
          onChangeComplete={setTolerance}
          ariaLabelledByForHandle="trim-tolerance"
        />
      </span>
      <Checkbox checked={shadow && !isBody} disabled={isBody} onChange={(event) => setShadow(event.target.checked)}>
        Shadow belongs to it
      </Checkbox>
      {hasBoth && (
        <Segmented<'body' | 'all'>
          size="small"
          aria-label="Trim to"
          value={part}
          onChange={setPart}
          options={[
            { value: 'body', label: 'Body', title: 'Without what stands apart, and without a shadow' },
            { value: 'all', label: 'All of it', title: 'All that is not the margin' },
          ]}
        />
      )}
      {(['Left', 'Top', 'Width', 'Height'] as const).map(number)}
      <span role="status" className="quiet small">
        {error ? sentenceOf(error) : isFetching ? 'Looking for the margin …' : draft ? '' : 'No empty margin found.'}
      </span>
      <Button size="small" type="primary" disabled={!draft} onClick={() => onAccept(draft)}>
        Trim
      </Button>
      {original.trim && (
        <Button size="small" onClick={() => onAccept(null)}>
          Remove the trim
        </Button>
      )}
      <Button size="small" onClick={onClose}>
        Cancel
      </Button>
    </section>
  );
}
