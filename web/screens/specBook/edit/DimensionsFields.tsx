import { type OtherDimensions, type Place, ratioWords } from '@inkwell/core/model';
import { Button, Segmented } from 'antd';
import { NumberField } from '../../../parts/fields/NumberField.tsx';

type Mode = 'one' | 'free height' | 'list' | 'ratios';
const modes: { value: Mode; label: string }[] = [
  { value: 'one', label: 'These only' },
  { value: 'free height', label: 'Any height' },
  { value: 'list', label: 'A list' },
  { value: 'ratios', label: 'A range of ratios' },
];

const modeOf = ({ height, otherDimensions }: Place): Mode =>
  typeof height !== 'number' ? 'free height' : (otherDimensions?.kind ?? 'one');

/** What changes about a place; undefined leaves a field out. */
export type PlaceChange = { [Key in keyof Place]?: Place[Key] | undefined };
/** Changes a place. @param step what this is a part of, where several changes are taken back together */
export type PutPlace = (change: PlaceChange, step?: string) => void;

/** What a place has in another mode, begun from what it has now. */
function inMode(place: Place, mode: Mode): PlaceChange {
  const { width } = place;
  const height = typeof place.height === 'number' ? place.height : place.height.min;
  if (mode === 'free height') return { height: { min: height, max: height * 2 }, otherDimensions: undefined };
  if (mode === 'one') return { height, otherDimensions: undefined };
  const ratio = width / height;
  const other: OtherDimensions =
    mode === 'list'
      ? { kind: 'list', dimensions: [{ width, height: width }] }
      : {
          kind: 'ratios',
          least: Number(Math.min(0.8, ratio).toFixed(4)),
          most: Number(Math.max(1.91, ratio).toFixed(4)),
          leastSide: Math.min(320, width, height),
          mostSide: Math.max(4096, width, height),
        };
  return { height, otherDimensions: other };
}

/** Which dimensions a place takes: what it wants, or wishes for, and what else. */
export function DimensionsFields({ place, put }: { place: Place; put: PutPlace }) {
  const { width, height, otherDimensions: other, multipleOf, mostPixels } = place;
  const px = (label: string, name: string, value: number, set: (value: number) => void) => (
    <NumberField
      label={label}
      name={name}
      unit="px"
      width={96}
      value={value}
      onChange={(typed) => set(Math.round(typed))}
    />
  );
  return (
    <div className="edit-stack">
      <div className="row wrap">
        {px('W', 'Dimensions', width, (value) => put({ width: value }))}
        {typeof height === 'number'
          ? px('H', 'Dimensions', height, (value) => put({ height: value }))
          : (['min', 'max'] as const).map((end) => (
              <span key={end}>
                {px(end === 'min' ? 'H from' : 'H to', 'Dimensions', height[end], (value) =>
                  put({ height: { ...height, [end]: value } }),
                )}
              </span>
            ))}
        {typeof height === 'number' && (
          <span className="quiet small">
            {ratioWords(width / height)}
            {other && ', what is wished for'}
          </span>
        )}
      </div>
      {!place.group && (
        <Segmented<Mode>
          size="small"
          aria-label="What else it takes"
          value={modeOf(place)}
          options={modes}
          onChange={(mode) => put(inMode(place, mode))}
        />
      )}
      {other?.kind === 'list' && <ListFields other={other} put={put} />}
      {other?.kind === 'ratios' && <RatioFields other={other} put={put} />}
      <div className="row wrap">
        <NumberField
          label="Divisible by"
          name="Sides"
          unit="px"
          width={142}
          value={multipleOf ?? 1}
          onChange={(value) => put({ multipleOf: Math.round(value) > 1 ? Math.round(value) : undefined })}
        />
        <NumberField
          label="At most"
          name="Pixels of a file"
          unit="MP"
          decimals={3}
          width={132}
          value={mostPixels === undefined ? 0 : mostPixels / 1e6}
          onChange={(value) => put({ mostPixels: value > 0 ? Math.round(value * 1e6) : undefined })}
        />
        <span className="quiet small">{mostPixels === undefined ? '0: no limit on pixels' : ''}</span>
      </div>
    </div>
  );
}

function ListFields({ other, put }: { other: Extract<OtherDimensions, { kind: 'list' }>; put: PutPlace }) {
  const set = (dimensions: typeof other.dimensions) =>
    put({ otherDimensions: dimensions.length > 0 ? { ...other, dimensions } : undefined });
  return (
    <ul className="edit-list" aria-label="Other dimensions that it takes">
      {other.dimensions.map((one, index) => (
        <li key={index} className="row">
          {(['width', 'height'] as const).map((side) => (
            <NumberField
              key={side}
              label={side === 'width' ? 'W' : 'H'}
              name={`Other dimensions ${index + 1}`}
              unit="px"
              width={96}
              value={one[side]}
              onChange={(value) =>
                set(other.dimensions.map((each, at) => (at === index ? { ...each, [side]: Math.round(value) } : each)))
              }
            />
          ))}
          <Button
            size="small"
            type="text"
            aria-label={`Take other dimensions ${index + 1} out`}
            onClick={() => set(other.dimensions.filter((_, at) => at !== index))}
          >
            Take out
          </Button>
        </li>
      ))}
      <li>
        <Button
          size="small"
          onClick={() => set([...other.dimensions, other.dimensions.at(-1) ?? { width: 1080, height: 1080 }])}
        >
          Add dimensions
        </Button>
      </li>
    </ul>
  );
}

function RatioFields({ other, put }: { other: Extract<OtherDimensions, { kind: 'ratios' }>; put: PutPlace }) {
  const set = (change: Partial<typeof other>) => put({ otherDimensions: { ...other, ...change } });
  return (
    <div className="row wrap">
      {(['least', 'most'] as const).map((end) => (
        <NumberField
          key={end}
          label={end === 'least' ? 'From' : 'To'}
          name="Ratio, width by height"
          unit=": 1"
          decimals={4}
          width={112}
          value={other[end]}
          onChange={(value) => set({ [end]: value })}
        />
      ))}
      <span className="quiet small">
        {ratioWords(other.least)} to {ratioWords(other.most)}
      </span>
      {(['leastSide', 'mostSide'] as const).map((end) => (
        <NumberField
          key={end}
          label={end === 'leastSide' ? 'Sides from' : 'to'}
          name={end === 'leastSide' ? 'Least side' : 'Greatest side'}
          unit="px"
          width={end === 'leastSide' ? 140 : 96}
          value={other[end]}
          onChange={(value) => set({ [end]: Math.round(value) })}
        />
      ))}
    </div>
  );
}
