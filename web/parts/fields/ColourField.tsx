import './ColourField.css';
import { ColourSchema, type Original } from '@inkwell/core/model';
import { Button, Input, Popover } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { sentenceOf } from '../../api/client.ts';
import { useColours } from '../../api/library/originals.ts';
import { PicturePicker } from '../pictures/PicturePicker.tsx';

/** A colour: typed, one of those that stand out in the picture, or taken from it under a loupe. */
export function ColourField(props: {
  /** What it is the colour of. */
  label: string;
  value: string;
  original: Original;
  onChange: (colour: string) => void;
}) {
  const { label, value, original, onChange } = props;
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  return (
    <Popover
      open={open}
      onOpenChange={setOpen}
      trigger="click"
      placement="topRight"
      align={{ overflow: { adjustX: true, adjustY: true, shiftX: true, shiftY: true } }}
      destroyOnHidden
      content={
        <ColourPanel
          label={label}
          value={value}
          original={original}
          onChange={onChange}
          onClose={() => {
            setOpen(false);
            button.current?.focus();
          }}
        />
      }
    >
      <Button
        ref={button}
        size="small"
        aria-label={`${label}: ${value}`}
        aria-expanded={open}
        icon={<span className="swatch" style={{ background: value, width: 16, height: 16 }} />}
      >
        {value}
      </Button>
    </Popover>
  );
}

function ColourPanel(props: Parameters<typeof ColourField>[0] & { onClose: () => void }) {
  const { label, value, original, onChange, onClose } = props;
  const section = useRef<HTMLElement>(null);
  // The panel lies at the end of the page: without this the keyboard would not find it.
  useEffect(() => section.current?.querySelector('input')?.focus(), []);
  const { data: colours, error } = useColours(original.id);
  const [draft, setDraft] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const typed = draft === null ? null : ColourSchema.safeParse(written(draft));
  const take = (colour: string) => {
    setDraft(null);
    setSaid(null);
    onChange(colour);
  };
  const wrong = typed?.success === false ? typed.error.issues[0]?.message : null;
  const problem = wrong ?? said ?? (error ? sentenceOf(error) : null);
  return (
    <section
      ref={section}
      className="colour-panel"
      aria-label={label}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        event.preventDefault();
        onClose();
      }}
    >
      <div className="row">
        <Input
          size="small"
          aria-label={`${label} as a number`}
          style={{ width: 110 }}
          value={draft ?? value}
          {...(wrong ? { status: 'error' as const } : {})}
          onChange={(event) => setDraft(event.target.value)}
          onPressEnter={() => typed?.success && take(typed.data)}
          onBlur={() => typed?.success && take(typed.data)}
        />
        {colours?.map((colour) => (
          <button
            key={colour}
            type="button"
            className="plain-button swatch-button"
            aria-label={`Use ${colour}`}
            aria-pressed={colour === value}
            title={colour}
            onClick={() => take(colour)}
          >
            <span className="swatch" style={{ background: colour }} />
          </button>
        ))}
      </div>
      <PicturePicker
        original={original}
        onPick={take}
        onNothing={(reason) => setSaid(reason ? sentenceOf(reason) : 'The picture is transparent there.')}
      />
      <span className="quiet small" role="status">
        {problem ?? 'Type a colour, use one of the five that stand out, or click in the picture.'}
      </span>
    </section>
  );
}

/** As people type it: with or without #, in capitals, or with three digits. */
function written(text: string): string {
  const digits = text.trim().toLowerCase().replace(/^#/, '');
  return `#${digits.length === 3 ? [...digits].map((digit) => digit + digit).join('') : digits}`;
}
