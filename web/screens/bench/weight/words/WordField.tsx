import { Input } from 'antd';
import { useState } from 'react';

/** Longer texts have a field of several lines. */
const oneLine = 300;

/** A text that is taken when the field is left. */
export function WordField(props: {
  label: string;
  /** What it is the label of, where the label alone would not say. */
  name?: string;
  /** Characters that it can have. */
  most: number;
  value: string;
  placeholder?: string;
  onSet: (text: string) => void;
}) {
  const { label, name = label, most, value, placeholder = label, onSet } = props;
  const [text, setText] = useState(value);
  const take = () => text.trim() !== value && onSet(text.trim());
  const field = {
    size: 'small' as const,
    'aria-label': name,
    placeholder,
    maxLength: most,
    value: text,
    onChange: ({ target }: { target: { value: string } }) => setText(target.value),
    onBlur: take,
  };
  return most > oneLine ? (
    <Input.TextArea {...field} autoSize={{ minRows: 1, maxRows: 4 }} />
  ) : (
    <Input {...field} onPressEnter={take} />
  );
}
