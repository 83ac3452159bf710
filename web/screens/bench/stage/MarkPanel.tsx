import { DeleteOutlined, DownOutlined, UpOutlined } from '@ant-design/icons';
import { type Rect, rectWithin } from '@inkwell/core/geometry';
import { type KeepMark, type Mark, MarkNameSchema, MarkSchema, type Original } from '@inkwell/core/model';
import { Button, Input, Select } from 'antd';
import { type KeyboardEvent, type ReactNode, useState } from 'react';
import { NumberField } from '../../../parts/fields/NumberField.tsx';
import { smallestMark, type Tool } from '../../../stage/tools.ts';
import { inRole, middleRegion, newMark } from './marks.ts';

const sides = { Left: 'left', Top: 'top', Width: 'width', Height: 'height' } as const;

/** An arrow key moves a mark by this part of the picture's longer side. */
const arrowStep = 0.005;

/** The marks of an original: chosen one by one, named, weighed and set in numbers. */
export function MarkPanel(props: {
  original: Original;
  selected: string | null;
  tool: Tool;
  onTool: (tool: Tool) => void;
  onSelect: (id: string | null) => void;
  onMarks: (marks: Mark[]) => void;
  /** A mark is moved by keys, one after the other. */
  onMove: (id: string, region: Rect) => void;
  /** What takes the place of the fields of a mark, where something does. */
  children?: ReactNode;
}) {
  const { original, selected, tool, onTool, onSelect, onMarks, onMove } = props;
  const [isOpen, setIsOpen] = useState(false);
  const { marks } = original;
  const mark = marks.find((one) => one.id === selected);
  const change = (next: Mark) => {
    const parsed = MarkSchema.safeParse(next);
    if (parsed.success) onMarks(marks.map((one) => (one.id === next.id ? parsed.data : one)));
  };
  const remove = (id: string) => {
    onMarks(marks.filter((one) => one.id !== id));
    onSelect(null);
  };
  /** Takes up the tool that draws a mark; pressed again, puts one in the middle, for those who do not draw. */
  const add = (role: Mark['role']) => {
    if (tool !== role) return onTool(role);
    onTool('frame');
    const made = newMark(role, middleRegion(original), original);
    onMarks([...marks, made]);
    onSelect(made.id);
  };
  const onKey = (event: KeyboardEvent, one: Mark) => {
    if (event.key === 'Delete' || event.key === 'Backspace') remove(one.id);
    else {
      const by = Math.max(original.width, original.height) * arrowStep;
      const [x, y] =
        { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[event.key] ?? [];
      if (x === undefined || y === undefined) return;
      const region = event.shiftKey
        ? { ...one, width: one.width + x, height: one.height + y }
        : { ...one, left: one.left + x, top: one.top + y };
      onMove(one.id, rectWithin(region, original, smallestMark));
    }
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <section className="mark-panel" aria-label="Marks">
      <div className="mark-list">
        {marks.map((one) => (
          <button
            key={one.id}
            type="button"
            className="plain-button mark-chip"
            data-role={one.role}
            aria-pressed={one.id === selected}
            aria-label={`${one.name}, ${one.role === 'keep' ? `${one.priority} be kept` : 'to be avoided'}`}
            title="Arrows move it, Shift and arrows change its dimensions, Delete removes it"
            onClick={() => onSelect(one.id === selected ? null : one.id)}
            onKeyDown={(event) => onKey(event, one)}
          >
            {one.name}
          </button>
        ))}
        {(['keep', 'avoid'] as const).map((role) => (
          <Button key={role} size="small" type="dashed" aria-pressed={tool === role} onClick={() => add(role)}>
            Add {role}
          </Button>
        ))}
        {marks.length === 0 && <span className="quiet small">Mark what matters: every frame follows.</span>}
      </div>
      {props.children ||
        (mark && (
          <MarkFields
            mark={mark}
            original={original}
            isOpen={isOpen}
            onOpen={setIsOpen}
            onChange={change}
            onRemove={() => remove(mark.id)}
          />
        ))}
    </section>
  );
}

/** A mark in one line: the rest of what can be said of it behind a press. */
function MarkFields(props: {
  mark: Mark;
  original: Original;
  isOpen: boolean;
  onOpen: (isOpen: boolean) => void;
  onChange: (mark: Mark) => void;
  onRemove: () => void;
}) {
  const { mark, original, isOpen, onOpen, onChange, onRemove } = props;
  const place = (region: Partial<Pick<Mark, 'left' | 'top' | 'width' | 'height'>>) =>
    onChange({ ...mark, ...rectWithin({ ...mark, ...region }, original, smallestMark) });
  return (
    <div className="mark-fields">
      <MarkName key={mark.id} name={mark.name} onChange={(name) => onChange({ ...mark, name })} />
      <Choice
        label="Keep or avoid"
        value={mark.role}
        words={{ keep: 'Keep', avoid: 'Avoid' }}
        onChange={(role) => onChange(inRole(mark, role))}
      />
      {mark.role === 'keep' && (
        <Choice
          label="Priority"
          value={mark.priority}
          words={{ must: 'Must', should: 'Should' }}
          onChange={(priority) => onChange({ ...mark, priority })}
        />
      )}
      <Button
        size="small"
        type="text"
        aria-expanded={isOpen}
        aria-label={isOpen ? 'Less of the mark' : 'More of the mark'}
        icon={isOpen ? <DownOutlined /> : <UpOutlined />}
        onClick={() => onOpen(!isOpen)}
      >
        {isOpen ? 'Less' : 'More'}
      </Button>
      <Button size="small" icon={<DeleteOutlined />} aria-label={`Delete ${mark.name}`} onClick={onRemove} />
      {isOpen && (
        <div className="mark-more">
          <Choice
            label="Shape of the mark"
            value={mark.shape}
            words={{ rectangle: 'Rectangle', ellipse: 'Ellipse' }}
            onChange={(shape) => onChange({ ...mark, shape })}
          />
          {mark.role === 'keep' && <KeepFields mark={mark} onChange={onChange} />}
          {(['Left', 'Top', 'Width', 'Height'] as const).map((label) => {
            const side = sides[label];
            return (
              <NumberField
                key={label}
                label={label}
                unit="px"
                name={mark.name}
                value={mark[side]}
                onChange={(value) => place({ [side]: value })}
              />
            );
          })}
        </div>
      )}
    </div>
  );
}

/** The name of a mark: taken when it is left or Enter is pressed, put back where it is no name. */
function MarkName({ name, onChange }: { name: string; onChange: (name: string) => void }) {
  const [draft, setDraft] = useState<string | null>(null);
  const parsed = MarkNameSchema.safeParse(draft ?? name);
  const problem = parsed.success ? undefined : parsed.error.issues[0]?.message;
  return (
    <Input
      size="small"
      aria-label="Name of the mark"
      value={draft ?? name}
      maxLength={60}
      style={{ width: 128 }}
      {...(problem ? { status: 'error' as const, title: problem } : {})}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => {
        setDraft(null);
        if (parsed.success && parsed.data !== name) onChange(parsed.data);
      }}
      onPressEnter={(event) => event.currentTarget.blur()}
      onKeyDown={(event) => {
        if (event.key === 'Escape') setDraft(null);
      }}
    />
  );
}

function KeepFields({ mark, onChange }: { mark: KeepMark; onChange: (mark: Mark) => void }) {
  return (
    <>
      <Choice
        label="What it is"
        value={mark.kind ?? 'none'}
        words={{ none: 'Anything', face: 'Face', subject: 'Subject', text: 'Text' }}
        onChange={(kind) => onChange({ ...mark, kind: kind === 'none' ? null : kind })}
      />
      <Choice
        label="Looks to"
        value={mark.look ?? 'none'}
        words={{ none: 'Looks ahead', left: 'Looks left', right: 'Looks right' }}
        onChange={(look) => onChange({ ...mark, look: look === 'none' ? null : look })}
      />
    </>
  );
}

/** One of a few words, wide enough for the longest. */
function Choice<Value extends string>(props: {
  label: string;
  value: Value;
  words: Record<Value, string>;
  onChange: (value: Value) => void;
}) {
  const words = Object.entries<string>(props.words);
  const longest = Math.max(...words.map(([, label]) => label.length));
  return (
    <Select<Value>
      size="small"
      aria-label={props.label}
      value={props.value}
      style={{ width: 46 + longest * 7 }}
      options={words.map(([value, label]) => ({ value: value as Value, label }))}
      onChange={props.onChange}
    />
  );
}
