import { type Backing, carriesTransparency, type ImageFormat, type Original } from '@inkwell/core/model';
import { flattenColour } from '@inkwell/core/planning';
import { Select } from 'antd';
import { useColours } from '../../../api/library/originals.ts';
import { ColourField } from '../../../parts/fields/ColourField.tsx';

type Choice = Backing['kind'] | 'none';
const choices: { value: Choice; label: string }[] = [
  { value: 'none', label: 'No backing' },
  { value: 'echo', label: 'Soft echo' },
  { value: 'mirrored edges', label: 'Mirrored edges' },
  { value: 'colour', label: 'One colour' },
  { value: 'transparent', label: 'Transparent' },
];

/** What shows where the picture does not reach the frame's edge. */
export function BackingField(props: {
  backing: Backing | null;
  formats: readonly ImageFormat[];
  original: Original;
  onChange: (backing: Backing | null) => void;
}) {
  const { backing, formats, original, onChange } = props;
  const { data: colours } = useColours(original.id);
  const clear = formats.some(carriesTransparency);
  const backingOf = (kind: Choice): Backing | null => {
    if (kind === 'none') return null;
    return kind === 'colour' ? { kind, colour: colours?.[0] ?? flattenColour } : { kind };
  };
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
        <ColourField
          label="Colour of the backing"
          value={backing.colour}
          original={original}
          onChange={(colour) => onChange({ kind: 'colour', colour })}
        />
      )}
    </span>
  );
}
