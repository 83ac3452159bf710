import type { FrameChange, OpaqueBacking } from '@inkwell/core/model';
import { flattenColour } from '@inkwell/core/planning';
import { closingOffer, panelRange } from '@inkwell/core/splitting';
import { Button, Select } from 'antd';
import { useColours } from '../../../api/library/originals.ts';
import { ColourField } from '../../../parts/fields/ColourField.tsx';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';

type Choice = OpaqueBacking['kind'] | 'none';
const choices: { value: Choice; label: string }[] = [
  { value: 'none', label: 'No closing panel' },
  { value: 'echo', label: 'Closes whole, on an echo' },
  { value: 'mirrored edges', label: 'Closes whole, edges mirrored' },
  { value: 'colour', label: 'Closes whole, on a colour' },
];

/** Whether a strip ends with one panel more that shows the whole picture, and the offer of one where it would help. */
export function ClosingField(props: { one: BenchFrame; state: FrameState; onChange: (change: FrameChange) => void }) {
  const { one, state, onChange } = props;
  const { original, at } = one;
  const { settings } = state;
  const { closing, grid } = settings;
  const { data: colours } = useColours(original.id);
  const offer = closingOffer(original, at.place, settings);
  const range = panelRange(at.place, true);
  if (!grid || !range) return null;
  const choose = (kind: Choice) => {
    if (kind === 'none') return onChange({ closing: null });
    const backing = kind === 'colour' ? { kind, colour: colours?.[0] ?? flattenColour } : { kind };
    onChange({ closing: backing, grid: { ...grid, columns: Math.min(grid.columns, range.most) } });
  };
  return (
    <>
      <Select<Choice>
        size="small"
        aria-label="Closing panel"
        title="One panel more at the end, which shows the whole picture"
        popupMatchSelectWidth={false}
        style={{ width: 210 }}
        value={closing?.kind ?? 'none'}
        options={choices}
        onChange={choose}
      />
      {closing?.kind === 'colour' && (
        <ColourField
          label="Colour behind the closing panel"
          value={closing.colour}
          original={original}
          onChange={(colour) => onChange({ closing: { kind: 'colour', colour } })}
        />
      )}
      {offer && (
        <span className="small">
          The picture fills {offer.filled.toFixed(1)} panels.{' '}
          <Button
            size="small"
            onClick={() => onChange({ closing: { kind: 'echo' }, grid: { columns: offer.panels, rows: 1 } })}
          >
            {offer.panels} and the whole picture as panel {offer.panels + 1}
          </Button>
        </span>
      )}
    </>
  );
}
