import { shortestPassword } from '@inkwell/core/model';
import { WordField } from '../../parts/fields/WordField.tsx';

/** A password that somebody chooses. */
export function NewPassword({
  value,
  onChange,
  label = 'Password',
}: {
  value: string;
  onChange: (value: string) => void;
  label?: string;
}) {
  return (
    <WordField
      label={label}
      value={value}
      filling="new-password"
      help={`At least ${shortestPassword} characters. Four words that have nothing to do with each other are good.`}
      onChange={onChange}
    />
  );
}
