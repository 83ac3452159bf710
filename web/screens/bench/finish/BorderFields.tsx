import { type Border, type Original, treatmentRanges } from '@inkwell/core/model';
import { Checkbox } from 'antd';
import { ChoiceField } from '../../../parts/fields/ChoiceField.tsx';
import { ColourField } from '../../../parts/fields/ColourField.tsx';
import { palette } from '../../../theme/palette.ts';
import { TuneField } from './TuneField.tsx';

const firstBorder: Border = {
  width: 4,
  colour: palette.sheet.toLowerCase(),
  side: 'inside',
  edges: { left: true, top: true, right: true, bottom: true },
  round: 'whole',
};
const edgeWords = { left: 'Left', top: 'Top', right: 'Right', bottom: 'Bottom' } as const;
type Side = Border['side'] | 'none';

/** A thin line round the picture. */
export function BorderFields(props: {
  border: Border | null;
  original: Original;
  disabled: boolean;
  /** Of a frame that is cut, the border may go round every piece. */
  isCut: boolean;
  onSet: (border: Border | null) => void;
}) {
  const { border, original, disabled, isCut, onSet } = props;
  return (
    <div className="treatment">
      <h3>Border</h3>
      <ChoiceField<Side>
        label="Drawn"
        name="Border"
        disabled={disabled}
        value={border?.side ?? 'none'}
        choices={[
          ['none', 'No border'],
          ['inside', 'Inside, over the picture'],
          ['outside', 'Outside of the picture'],
        ]}
        onChoose={(side) => onSet(side === 'none' ? null : { ...(border ?? firstBorder), side })}
      />
      {border && (
        <>
          <TuneField
            label="Border width"
            hint="In pixels of the file; the file keeps its dimensions"
            value={border.width}
            least={treatmentRanges.border.least}
            most={60}
            step={1}
            unit="px"
            disabled={disabled}
            onDrag={() => undefined}
            onSet={(width) => onSet({ ...border, width: Math.round(width) })}
          />
          <div className="choice-field">
            <span>Colour</span>
            {disabled ? (
              <span>{border.colour}</span>
            ) : (
              <ColourField
                label="Colour of the border"
                value={border.colour}
                original={original}
                onChange={(colour) => onSet({ ...border, colour })}
              />
            )}
          </div>
          <div className="choice-field">
            <span>Edges</span>
            <span>
              {(Object.keys(edgeWords) as (keyof typeof edgeWords)[]).map((edge) => (
                <Checkbox
                  key={edge}
                  disabled={disabled}
                  checked={border.edges[edge]}
                  onChange={({ target }) => onSet({ ...border, edges: { ...border.edges, [edge]: target.checked } })}
                >
                  {edgeWords[edge]}
                </Checkbox>
              ))}
            </span>
          </div>
          {isCut && (
            <Checkbox
              disabled={disabled}
              checked={border.round === 'pieces'}
              onChange={({ target }) => onSet({ ...border, round: target.checked ? 'pieces' : 'whole' })}
            >
              Around every piece, not only the whole
            </Checkbox>
          )}
        </>
      )}
    </div>
  );
}
