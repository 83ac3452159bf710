import { NameSchema } from '@inkwell/core/model';
import { Input } from 'antd';
import { useState } from 'react';

/** A name that turns into a field when it is pressed. Enter keeps the new name, Escape the old one. */
export function NameField(props: {
  name: string;
  what: string;
  /** Null where whoever is here may not rename it. */
  onRename: ((name: string) => void) | null;
}) {
  const { name, what, onRename } = props;
  const [draft, setDraft] = useState<string | null>(null);
  if (onRename === null) return name;
  if (draft === null) {
    return (
      <button
        type="button"
        className="plain-button name-field"
        title="Rename"
        aria-label={`Rename ${what} ${name}`}
        onClick={() => setDraft(name)}
      >
        {name}
      </button>
    );
  }
  const checked = NameSchema.safeParse(draft);
  const finish = () => {
    setDraft(null);
    if (checked.success && checked.data !== name) onRename(checked.data);
  };
  return (
    <Input
      autoFocus
      size="small"
      value={draft}
      aria-label={`Name of ${what}`}
      {...(checked.success ? {} : { status: 'error' as const, title: checked.error.issues[0]?.message })}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={finish}
      onPressEnter={finish}
      onKeyDown={(event) => {
        if (event.key === 'Escape') setDraft(null);
      }}
    />
  );
}
