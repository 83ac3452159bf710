import { Input } from 'antd';
import { useState } from 'react';

/** A number that can be typed, or stepped with the arrow keys (Shift: by ten). Enter or leaving takes it, Escape does not. */
export function NumberField({
  label,
  unit,
  value,
  name,
  decimals = 1,
  width,
  onChange,
}: {
  label: string;
  unit: string;
  value: number;
  /** What it is a number of, where the label alone would not say. */
  name?: string;
  /** So many are shown. */
  decimals?: number;
  /** Of the field, in CSS pixels. */
  width?: number;
  onChange: (value: number) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const shown = String(Number(value.toFixed(decimals)));
  const typed = draft === null ? value : Number(draft.replace(',', '.'));
  const valid = draft === null || (draft.trim() !== '' && Number.isFinite(typed));
  const take = () => {
    setDraft(null);
    if (draft !== null && valid && draft !== shown) onChange(typed);
  };
  return (
    <Input
      size="small"
      inputMode="decimal"
      aria-label={`${name ? `${name}: ${label}` : label} in ${unit}`}
      prefix={<span className="quiet small">{label}</span>}
      suffix={<span className="quiet small">{unit}</span>}
      style={{ width: width ?? (label.length > 8 ? 132 : 127), textAlign: 'right' }}
      value={draft ?? shown}
      {...(valid ? {} : { status: 'error' as const, title: 'A number is needed, such as 1280 or 640.5.' })}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={take}
      onPressEnter={take}
      onKeyDown={(event) => {
        if (event.key === 'Escape') setDraft(null);
        if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && valid) {
          event.preventDefault();
          setDraft(null);
          onChange(typed + (event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1));
        }
      }}
    />
  );
}
