import './review.css';
import {
  dimensionsWords,
  formatsWords,
  limitWords,
  type PlaceDifference,
  type SheetDifference,
} from '@inkwell/core/bookkeeping';
import { PlaceOutline } from '../../../places/PlaceOutline.tsx';

const kindWords: Record<PlaceDifference['kind'], string> = { new: 'New', gone: 'Taken out', changed: 'Changed' };
/** The longer side of a drawn place, in CSS pixels. */
const drawnSide = 74;

const scaleOf = (...places: (PlaceDifference['before'] | undefined)[]) => {
  const sides = places.flatMap((place) =>
    place ? [place.width, typeof place.height === 'number' ? place.height : place.height.max] : [],
  );
  return drawnSide / Math.max(1, ...sides);
};

const placeWords = (place: PlaceDifference['before']) =>
  place ? `${dimensionsWords(place)} px · ${limitWords(place)} · ${formatsWords(place)}` : '';

const said = (words: string) => (words === '' ? 'nothing' : words);

/** What is different between two versions of a sheet, in words and drawn, at one scale for each place. */
export function Differences({ difference, then, now }: { difference: SheetDifference; then: string; now: string }) {
  const { fields, places, isReordered } = difference;
  return (
    <div className="differences">
      {fields.length > 0 && (
        <table className="difference-table">
          <Head name="The sheet itself" then={then} now={now} />
          <tbody>
            {fields.map(({ field, label, before, after }) => (
              <tr key={field}>
                <th scope="row">{label}</th>
                <td>{said(before)}</td>
                <td>{said(after)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {isReordered && <p className="small">Its places stand in another order.</p>}
      {places.map((one) => (
        <section key={one.slug} className="difference" aria-label={`${one.name}: ${kindWords[one.kind].toLowerCase()}`}>
          <div className="difference-drawn">
            {one.before && <PlaceOutline place={one.before} scale={scaleOf(one.before, one.after)} />}
            {one.before && one.after && <span aria-hidden>→</span>}
            {one.after && <PlaceOutline place={one.after} scale={scaleOf(one.before, one.after)} />}
          </div>
          {one.kind === 'changed' ? (
            <table className="difference-table">
              <Head name={one.name} then={then} now={now} />
              <tbody>
                {one.fields.map(({ field, label, before, after }) => (
                  <tr key={field}>
                    <th scope="row">{label}</th>
                    <td>{said(before)}</td>
                    <td>{said(after)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <p>
              <strong>{one.name}</strong> <span className="quiet">{kindWords[one.kind].toLowerCase()}</span>
              <br />
              <span className="quiet small">{placeWords(one.after ?? one.before)}</span>
            </p>
          )}
        </section>
      ))}
    </div>
  );
}

function Head({ name, then, now }: { name: string; then: string; now: string }) {
  return (
    <thead>
      <tr>
        <th scope="col">{name}</th>
        <th scope="col">{then}</th>
        <th scope="col">{now}</th>
      </tr>
    </thead>
  );
}
