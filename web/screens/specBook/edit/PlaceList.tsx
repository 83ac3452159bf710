import { newPlaceSlug } from '@inkwell/core/bookkeeping';
import type { Place, SheetContent } from '@inkwell/core/model';
import { Button } from 'antd';
import { PlaceOutline } from '../../../places/PlaceOutline.tsx';

/** The number of a place in its sheet; null stands for the sheet itself. */
export type Chosen = number | null;

const outlineScale = 0.014;

/** A place that one begins with. */
const usualPlace = { name: 'New place', purpose: 'post', width: 1080, height: 1080, formats: ['jpeg', 'png'] } as const;

/** The places of a sheet that is changed: chosen, added, copied, put into an order, put away and taken out. */
export function PlaceList(props: {
  sheet: SheetContent;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
  onChange: (places: Place[]) => void;
}) {
  const { sheet, chosen, onChoose, onChange } = props;
  const { places } = sheet;
  const place = chosen === null ? undefined : places[chosen];
  const add = (added: Place, at: number) => {
    onChange([...places.slice(0, at), added, ...places.slice(at)]);
    onChoose(at);
  };
  const move = (from: number, to: number) => {
    const next = [...places];
    const [moved] = next.splice(from, 1);
    if (!moved) return;
    next.splice(to, 0, moved);
    onChange(next);
    onChoose(to);
  };
  return (
    <nav className="edit-places" aria-label="Places of this sheet">
      <ul>
        <li>
          <button
            type="button"
            className="plain-button"
            aria-current={chosen === null ? 'true' : undefined}
            onClick={() => onChoose(null)}
          >
            <strong>{sheet.name || 'The sheet'}</strong>
            <span className="quiet small">the sheet itself</span>
          </button>
        </li>
        {places.map((one, index) => (
          <li key={one.slug}>
            <button
              type="button"
              className="plain-button"
              aria-current={chosen === index ? 'true' : undefined}
              onClick={() => onChoose(index)}
            >
              <span className="edit-mini">
                <PlaceOutline place={one} scale={outlineScale} />
              </span>
              <span className={one.isAway ? 'quiet' : ''}>
                {one.name || 'Without a name'}
                {one.isAway && <span className="small"> put away</span>}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <div className="row wrap">
        <Button
          size="small"
          onClick={() =>
            add(
              {
                ...usualPlace,
                formats: [...usualPlace.formats],
                slug: newPlaceSlug(usualPlace.name, places),
                limit: { bytes: 5_000_000, unit: 'MB' },
                shape: 'rectangle',
                covered: [],
                shownWidths: [],
              },
              places.length,
            )
          }
        >
          New place
        </Button>
        {place && chosen !== null && (
          <>
            <Button
              size="small"
              onClick={() => {
                const name = `${place.name} copy`.slice(0, 60);
                add({ ...place, name, slug: newPlaceSlug(name, places) }, chosen + 1);
              }}
            >
              Copy
            </Button>
            <Button size="small" disabled={chosen === 0} onClick={() => move(chosen, chosen - 1)}>
              Up
            </Button>
            <Button size="small" disabled={chosen === places.length - 1} onClick={() => move(chosen, chosen + 1)}>
              Down
            </Button>
            <Button
              size="small"
              title="Frames that are made for it stay; it is not offered any more"
              onClick={() =>
                onChange(
                  places.map((one, index) => {
                    if (index !== chosen) return one;
                    const { isAway, ...rest } = one;
                    return isAway ? rest : { ...rest, isAway: true };
                  }),
                )
              }
            >
              {place.isAway ? 'Bring back' : 'Put away'}
            </Button>
            <Button
              size="small"
              onClick={() => {
                onChange(places.filter((_, index) => index !== chosen));
                onChoose(places.length > 1 ? Math.max(0, chosen - 1) : null);
              }}
            >
              Take out
            </Button>
          </>
        )}
      </div>
    </nav>
  );
}
