import './WordField.css';
import { Input } from 'antd';
import { type ReactNode, useId } from 'react';

/** What a field is filled in with by a browser or a password manager. */
type Filling = 'email' | 'current-password' | 'new-password' | 'one-time-code' | 'name' | 'off';

/** A line of text with its label above it and, where it helps, a line below. */
export function WordField(props: {
  label: string;
  value: string;
  filling: Filling;
  onChange: (value: string) => void;
  help?: ReactNode;
  autoFocus?: boolean;
  maxLength?: number;
  disabled?: boolean;
}) {
  const { label, value, filling, onChange, help, autoFocus = false, maxLength = 200, disabled = false } = props;
  const id = useId();
  const isHidden = filling.endsWith('password');
  const FieldOf = isHidden ? Input.Password : Input;
  return (
    <div className="word-field">
      <label htmlFor={id}>{label}</label>
      <FieldOf
        id={id}
        value={value}
        autoComplete={filling}
        autoFocus={autoFocus}
        maxLength={maxLength}
        disabled={disabled}
        required
        {...(filling === 'email' ? { type: 'email', inputMode: 'email' as const } : {})}
        {...(filling === 'one-time-code' ? { inputMode: 'text' as const, spellCheck: false } : {})}
        {...(help ? { 'aria-describedby': `${id}-help` } : {})}
        onChange={({ target }) => onChange(target.value)}
      />
      {help && (
        <p id={`${id}-help`} className="quiet small">
          {help}
        </p>
      )}
    </div>
  );
}
