import './ChoiceField.css';
import { Select } from 'antd';

/** One of a few, with what it is a choice of before it. */
export function ChoiceField<Value extends string>(props: {
  label: string;
  /** What it is a choice of, where the label alone would not say. */
  name?: string;
  value: Value;
  /** Value and words of each. */
  choices: readonly (readonly [Value, string])[];
  disabled: boolean;
  onChoose: (value: Value) => void;
}) {
  const { label, name = label, value, choices, disabled, onChoose } = props;
  return (
    <div className="choice-field">
      <span>{label}</span>
      <Select<Value>
        size="small"
        aria-label={name}
        disabled={disabled}
        value={value}
        options={choices.map(([value, label]) => ({ value, label }))}
        onChange={onChoose}
      />
    </div>
  );
}
