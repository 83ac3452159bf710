import { dimensionsWords } from '@inkwell/core/bookkeeping';
import { formatLimit, type Original, type PlaceOfNetwork, type SpecSheet } from '@inkwell/core/model';
import { Checkbox } from 'antd';
import { PlaceOutline } from '../../places/PlaceOutline.tsx';
import { SheetPin } from './SheetPin.tsx';

export type Grouping = 'network' | 'purpose';
export interface PlaceGroup {
  key: string;
  /** Where it is one sheet of one's own: which version of it the project has. */
  sheet?: SpecSheet;
  title: string;
  places: PlaceOfNetwork[];
}

/** The places of one network or purpose, to be ticked for the selected pictures. */
export function PlaceGroupList({
  group,
  by,
  has,
  selected,
  onChange,
}: {
  group: PlaceGroup;
  by: Grouping;
  has: (originalId: string, placeId: string) => boolean;
  selected: Original[];
  onChange: (places: PlaceOfNetwork[], on: boolean) => void;
}) {
  const single = group.places.filter((one) => !one.place.group);
  const several = group.places.filter((one) => one.place.group);
  const ticks = (wanted: PlaceOfNetwork[]) => {
    const have = wanted.flatMap((one) => selected.filter((original) => has(original.id, one.id))).length;
    const all = wanted.length * selected.length;
    return { checked: all > 0 && have === all, indeterminate: have > 0 && have < all };
  };
  const item = (one: PlaceOfNetwork) => (
    <li key={one.id}>
      <Checkbox
        {...ticks([one])}
        disabled={selected.length === 0}
        aria-label={`${one.network.name} ${one.place.name}`}
        onChange={({ target }) => onChange([one], target.checked)}
      >
        <span className="choose-place">
          <span className="choose-shape">
            <PlaceOutline place={one.place} scale={0.016} />
          </span>
          <span>
            {by === 'purpose' && <span className="quiet">{one.network.name} </span>}
            {one.place.name}
            <br />
            <span className="quiet small">
              {dimensionsWords(one.place)} · {formatLimit(one.place.limit)}
            </span>
          </span>
        </span>
      </Checkbox>
    </li>
  );
  return (
    <section className="sheet choose-group" aria-label={group.title}>
      <Checkbox
        {...ticks(single)}
        disabled={selected.length === 0 || single.length === 0}
        onChange={({ target }) => onChange(single, target.checked)}
      >
        <h3 style={{ display: 'inline' }}>{group.title}</h3>
      </Checkbox>
      {group.sheet?.own && <SheetPin sheet={group.sheet} />}
      <ul className="choose-list">{single.map(item)}</ul>
      {several.length > 0 && <p className="quiet small choose-several">One picture in several pieces</p>}
      <ul className="choose-list">{several.map(item)}</ul>
    </section>
  );
}
