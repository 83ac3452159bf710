import { InputNumber, Slider } from 'antd';
import { useState } from 'react';

/** A number that is dragged or typed: the picture follows while it is dragged, and it is set when the hand rests. */
export function TuneField(props: {
  label: string;
  /** What it does, for those who wonder. */
  hint: string;
  value: number;
  least: number;
  most: number;
  step: number;
  /** What is shown is the value times this, as a percentage would be. */
  times?: number;
  unit?: string;
  disabled?: boolean;
  onDrag: (value: number | null) => void;
  onSet: (value: number) => void;
}) {
  const { label, hint, value, least, most, step, times = 1, unit = '', disabled = false, onDrag, onSet } = props;
  const [dragged, setDragged] = useState<number | null>(null);
  const shown = (dragged ?? value) * times;
  const inside = (typed: number) => Math.min(most, Math.max(least, typed / times));
  return (
    <div className="tune" title={hint}>
      <span className="tune-label">{label}</span>
      <Slider
        ariaLabelForHandle={label}
        tooltip={{ open: false }}
        disabled={disabled}
        min={least}
        max={most}
        step={step}
        value={dragged ?? value}
        onChange={(next) => {
          setDragged(next);
          onDrag(next);
        }}
        onChangeComplete={(next) => {
          setDragged(null);
          onDrag(null);
          onSet(next);
        }}
      />
      <InputNumber
        size="small"
        controls={false}
        aria-label={`${label}${unit ? ` in ${unit}` : ''}`}
        disabled={disabled}
        value={Math.round(shown * 100) / 100}
        suffix={unit && <span className="quiet small">{unit}</span>}
        onChange={(typed) => typed !== null && onSet(inside(typed))}
      />
    </div>
  );
}
