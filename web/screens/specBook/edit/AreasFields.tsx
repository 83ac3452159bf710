import type { Area, Place } from '@inkwell/core/model';
import { Button, Input, Select } from 'antd';
import { NumberField } from '../../../parts/fields/NumberField.tsx';
import type { PutPlace } from './DimensionsFields.tsx';
import { type AreaKey, drawnDimensions } from './PlaceDrawing.tsx';

const sides = [
  ['left', 'L'],
  ['top', 'T'],
  ['width', 'W'],
  ['height', 'H'],
] as const;

/** One area in numbers, with what it is about. */
function AreaFields(props: {
  name: string;
  area: Area;
  isChosen: boolean;
  withShape: boolean;
  onChange: (area: Area, step?: string) => void;
  onRemove: () => void;
  onChoose: () => void;
}) {
  const { name, area, isChosen, withShape, onChange, onRemove, onChoose } = props;
  return (
    <li className={isChosen ? 'edit-area edit-area-chosen' : 'edit-area'} onFocus={onChoose}>
      <div className="row wrap">
        <Input
          size="small"
          aria-label={`${name}: what it is about`}
          style={{ width: 150 }}
          maxLength={60}
          value={area.reason}
          onChange={({ target }) => onChange({ ...area, reason: target.value }, `words of ${name}`)}
        />
        {withShape && (
          <Select<Area['shape']>
            size="small"
            aria-label={`${name}: shape`}
            style={{ width: 100 }}
            value={area.shape}
            onChange={(shape) => onChange({ ...area, shape, ...(shape === 'circle' ? { height: area.width } : {}) })}
            options={[
              { value: 'rectangle', label: 'Rectangle' },
              { value: 'circle', label: 'Circle' },
            ]}
          />
        )}
        <Button size="small" type="text" aria-label={`Take out ${name}`} onClick={onRemove}>
          Take out
        </Button>
      </div>
      <div className="row edit-sides">
        {sides.map(([side, letter]) => (
          <NumberField
            key={side}
            label={letter}
            name={name}
            unit="px"
            width={91}
            value={area[side]}
            onChange={(value) => {
              const isSquare = area.shape === 'circle' && (side === 'width' || side === 'height');
              onChange({ ...area, [side]: value, ...(isSquare ? { width: value, height: value } : {}) });
            }}
          />
        ))}
      </div>
    </li>
  );
}

interface Areas {
  place: Place;
  chosen: AreaKey | null;
  onChoose: (key: AreaKey | null) => void;
  put: PutPlace;
}

/** What covers a place, in numbers. */
export function CoveredFields({ place, chosen, onChoose, put }: Areas) {
  const { covered } = place;
  const { width, height } = drawnDimensions(place);
  return (
    <ul className="edit-list" aria-label="Covered areas">
      {covered.map((area, index) => (
        <AreaFields
          key={index}
          name={`Covered area ${index + 1}`}
          area={area}
          withShape
          isChosen={chosen === index}
          onChoose={() => onChoose(index)}
          onChange={(next, step) => put({ covered: covered.map((each, at) => (at === index ? next : each)) }, step)}
          onRemove={() => put({ covered: covered.filter((_, at) => at !== index) })}
        />
      ))}
      <li>
        <Button
          size="small"
          onClick={() => {
            const low = Math.round(height / 5);
            const area: Area = {
              left: 0,
              top: height - low,
              width,
              height: low,
              shape: 'rectangle',
              reason: 'controls',
            };
            put({ covered: [...covered, area] });
            onChoose(covered.length);
          }}
        >
          Add a covered area
        </Button>
      </li>
    </ul>
  );
}

/** The part of a place that is shown everywhere, in numbers. */
export function ShownPartFields({ place, chosen, onChoose, put }: Areas) {
  const { shownPart } = place;
  const { width, height } = drawnDimensions(place);
  if (!shownPart) {
    return (
      <Button
        size="small"
        onClick={() => {
          const [across, down] = [Math.round(width * 0.8), Math.round(height * 0.8)];
          const left = Math.round((width - across) / 2);
          const top = Math.round((height - down) / 2);
          put({ shownPart: { left, top, width: across, height: down, shape: 'rectangle', reason: 'on every screen' } });
          onChoose('shown');
        }}
      >
        Only a part is always shown
      </Button>
    );
  }
  return (
    <ul className="edit-list" aria-label="Part that is always shown">
      <AreaFields
        name="Part that is always shown"
        area={shownPart}
        withShape={false}
        isChosen={chosen === 'shown'}
        onChoose={() => onChoose('shown')}
        onChange={(next, step) => put({ shownPart: next }, step)}
        onRemove={() => put({ shownPart: undefined })}
      />
    </ul>
  );
}
