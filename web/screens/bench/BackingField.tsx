import { type Backing, ColourSchema, carriesTransparency, type ImageFormat } from '@inkwell/core/model';
import { ColorPicker, Select } from 'antd';

type Choice = Backing['kind'] | 'none';
const choices: { value: Choice; label: string }[] = [
  { value: 'none', label: 'No backing' },
  { value: 'echo', label: 'Soft echo' },
  { value: 'mirrored edges', label: 'Mirrored edges' },
  { value: 'colour', label: 'One colour' },
  { value: 'transparent', label: 'Transparent' },
];
const firstColour = '#f4f1ea';

function backingOf(kind: Choice): Backing | null {
  if (kind === 'none') return null;
  return kind === 'colour' ? { kind, colour: firstColour } : { kind };
}

/** What shows where the picture does not reach the frame's edge. */
export function BackingField(props: {
  backing: Backing | null;
  formats: readonly ImageFormat[];
  onChange: (backing: Backing | null) => void;
}) {
  const { backing, formats, onChange } = props;
  const clear = formats.some(carriesTransparency);
  return (
    <span className="reading-backing">
      <Select<Choice>
        size="small"
        aria-label="Backing"
        value={backing?.kind ?? 'none'}
        style={{ width: 142 }}
        options={choices.map((choice) => ({ ...choice, disabled: choice.value === 'transparent' && !clear }))}
        onChange={(kind) => onChange(backingOf(kind))}
      />
      {backing?.kind === 'colour' && (
        <ColorPicker
          size="small"
          disabledAlpha
          value={backing.colour}
          onChangeComplete={(colour) => {
            const parsed = ColourSchema.safeParse(colour.toHexString().toLowerCase());
            if (parsed.success) onChange({ kind: 'colour', colour: parsed.data });
          }}
        />
      )}
    </span>
  );
}
