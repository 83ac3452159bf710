import {
  dimensionsWords,
  formatsWords,
  groupWords,
  limitWords,
  oldestOf,
  otherDimensionsWords,
  otherLimitsWords,
  wishesWords,
} from '@inkwell/core/bookkeeping';
import type { LearnedUpload, Place, SpecSheet } from '@inkwell/core/model';
import type { ReactNode } from 'react';
import { PlaceOutline } from '../../places/PlaceOutline.tsx';
import { dateWords } from './dateWords.ts';
import { LearnedLine } from './LearnedLine.tsx';

/** One scale for all outlines, so that their sizes can be compared by eye. */
const outlineScale = 0.055;

/** A place with its numbers. */
export function PlaceCard(props: {
  sheet: SpecSheet;
  place: Place;
  learned: LearnedUpload | undefined;
  children?: ReactNode;
}) {
  const { sheet, place, learned, children } = props;
  const covered = [...new Set(place.covered.map((area) => area.reason))];
  const others = [otherDimensionsWords(place), otherLimitsWords(place)].filter((words) => words !== '');
  const wishes = wishesWords(place);
  const oldest = oldestOf(place);
  return (
    <li className="spec-place">
      <div className="spec-shape">
        <PlaceOutline place={place} scale={outlineScale} />
      </div>
      <div>
        <h3>
          {place.name}
          {place.isAway && <span className="quiet small"> put away</span>}
        </h3>
        <div className="spec-number">
          {dimensionsWords(place)} px{place.group ? ' each' : ''}
        </div>
        <div>
          {limitWords(place)} · {formatsWords(place)}
        </div>
        <div className="quiet small">
          {others.map((words) => (
            <div key={words}>{words.charAt(0).toUpperCase() + words.slice(1)}</div>
          ))}
          {wishes && <div>Recommended: {wishes}</div>}
          {place.shape !== 'rectangle' && (
            <div>{place.shape === 'circle' ? 'Shown in a circle' : 'Shown with rounded corners'}</div>
          )}
          {place.shownWidths.length > 0 && <div>Shown {place.shownWidths.join(' and ')} px wide</div>}
          {covered.length > 0 && (
            <div>
              <span className="spec-key covered" /> Covered by {covered.join(', ')}
            </div>
          )}
          {place.shownPart && (
            <div>
              <span className="spec-key shown" /> {place.shownPart.width} × {place.shownPart.height} px always shown (
              {place.shownPart.reason})
            </div>
          )}
          {place.group && <div>{groupWords(place.group)}</div>}
          {place.note && <div>{place.note}</div>}
          {sheet.own && oldest && oldest !== sheet.checkedOn && <div>Its oldest number {dateWords(oldest)}</div>}
          {learned && <LearnedLine learned={learned} place={place} />}
        </div>
        {children && <div className="spec-ways-out">{children}</div>}
      </div>
    </li>
  );
}
