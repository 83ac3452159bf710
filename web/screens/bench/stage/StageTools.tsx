import { Button, Segmented } from 'antd';
import type { Tool } from '../../../stage/tools.ts';

const toolWords: { value: Tool; label: string; title: string }[] = [
  {
    value: 'frame',
    label: 'Frames',
    title: 'Drag an outline to move its frame. Drag beside it to mark what must stay in',
  },
  { value: 'keep', label: 'Keep', title: 'Draw around what must be in every frame' },
  { value: 'avoid', label: 'Avoid', title: 'Draw around what should stay out' },
  { value: 'level', label: 'Level', title: 'Draw along a horizon or a mast to straighten the chosen frame' },
];

/** What a tool that was taken up waits for. */
const hints: Partial<Record<Tool, string>> = {
  keep: 'Draw it on the picture. “Add keep” places it in the middle.',
  avoid: 'Draw it on the picture. “Add avoid” places it in the middle.',
  level: 'Draw along what should be level or upright.',
};

/** What dragging on the original does, and composing all its frames anew. */
export function StageTools(props: {
  tool: Tool;
  onTool: (tool: Tool) => void;
  /** Null where there is nothing to compose from. */
  onComposeAll: (() => void) | null;
  trimming: boolean;
  onTrim: () => void;
}) {
  return (
    <div className="stage-tools">
      <Segmented<Tool> size="small" aria-label="Tool" value={props.tool} onChange={props.onTool} options={toolWords} />
      <Button
        size="small"
        aria-pressed={props.trimming}
        title="Trim an empty margin off this picture"
        onClick={props.onTrim}
      >
        Trim …
      </Button>
      {props.onComposeAll && (
        <Button
          size="small"
          title="Compose every frame of this picture again from the marks"
          onClick={props.onComposeAll}
        >
          Compose all
        </Button>
      )}
      <span aria-live="polite" className="stage-hint small">
        {hints[props.tool]}
      </span>
    </div>
  );
}
