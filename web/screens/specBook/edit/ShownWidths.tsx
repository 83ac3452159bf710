import type { Place } from '@inkwell/core/model';
import { Input } from 'antd';
import { useState } from 'react';
import { PlaceOutline } from '../../../places/PlaceOutline.tsx';

/** The widest that is drawn as wide as it is shown, in CSS pixels. */
const widestDrawn = 330;

/** How wide a place is shown, drawn at that width. */
export function ShownWidths({ place }: { place: Place }) {
  const drawn = place.shownWidths.filter((width) => width >= 8 && width <= widestDrawn);
  const wider = place.shownWidths.filter((width) => width > widestDrawn);
  if (place.shownWidths.length === 0) return null;
  return (
    <div>
      <h3>As wide as it is shown</h3>
      {wider.length > 0 && <p className="quiet small">{wider.join(' and ')} px: wider than there is room for here.</p>}
      <ul className="edit-widths">
        {drawn.map((width) => (
          <li key={width}>
            <PlaceOutline place={{ ...place, group: undefined }} scale={width / place.width} />
            <span className="quiet small">{width} px</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Widths that are typed with commas between. */
export function WidthsField({ widths, onChange }: { widths: readonly number[]; onChange: (widths: number[]) => void }) {
  const [draft, setDraft] = useState<string | null>(null);
  const take = () => {
    setDraft(null);
    if (draft === null) return;
    const words = draft.split(/[,;\s]+/).filter((word) => word !== '');
    onChange([...new Set(words.map(Number))].sort((a, b) => b - a));
  };
  return (
    <div className="row">
      <Input
        size="small"
        aria-label="Widths at which it is shown"
        style={{ width: 150 }}
        value={draft ?? widths.join(', ')}
        onChange={({ target }) => setDraft(target.value)}
        onBlur={take}
        onPressEnter={take}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setDraft(null);
        }}
      />
      <span className="quiet small">px, with commas between</span>
    </div>
  );
}
