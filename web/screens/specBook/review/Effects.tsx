import { dimensionsWords } from '@inkwell/core/bookkeeping';
import type { Original, PlaceOfNetwork, Reshaped, SheetEffects } from '@inkwell/core/model';
import { formatLabel, formatWeight, type ImageFormat } from '@inkwell/core/model';
import { Link } from 'react-router';
import { useOriginals } from '../../../api/library/originals.ts';
import { counted } from '../../../parts/counted.ts';
import { FramePicture } from '../../../parts/pictures/FramePicture.tsx';

const isAre = (count: number) => (count === 1 ? 'is' : 'are');

/** What a change of a sheet would do to frames, in a line for each kind of it. */
export function EffectLines(props: { effects: SheetEffects; names: ReadonlyMap<string, PlaceOfNetwork> }) {
  const { effects, names } = props;
  const { projects, staying, reshaped, carried, tooHeavy, formatLost, piecesLost, composedAnew } = effects;
  const frames = projects.reduce((sum, project) => sum + project.frames, 0);
  const heaviest = tooHeavy.reduce<(typeof tooHeavy)[number] | null>(
    (most, one) => (most && most.bytes >= one.bytes ? most : one),
    null,
  );
  return (
    <div className="effects">
      {frames === 0 ? (
        <p>No frame is touched: nothing has to be made again.</p>
      ) : (
        <p>
          <strong>{counted(frames, 'frame')}</strong> in {counted(projects.length, 'project')} {isAre(frames)} touched:{' '}
          {projects.map(({ id, name, frames: count }, index) => (
            <span key={id}>
              {index > 0 && ', '}
              <Link to={`/projects/${id}`}>{name}</Link> ({count})
            </span>
          ))}
          .
        </p>
      )}
      <ul>
        {reshaped > 0 && (
          <li>
            {counted(reshaped, 'frame')} {reshaped === 1 ? 'gets' : 'get'} another shape.{' '}
            {carried > 0 && `The windows of ${carried} were set by hand: they are carried over, and marked for a look.`}
          </li>
        )}
        {composedAnew > 0 && (
          <li>
            {counted(composedAnew, 'frame')} {isAre(composedAnew)} composed anew for what is covered or shown.
          </li>
        )}
        {heaviest && (
          <li className="effect-caution">
            {counted(tooHeavy.length, 'file')} {tooHeavy.length === 1 ? 'is' : 'are'} too heavy then, the heaviest with{' '}
            {formatWeight(heaviest.bytes, 'MB')} of {formatWeight(heaviest.budgetBytes, 'MB')} that are left. They are
            made anew with less quality. <Which frames={tooHeavy} names={names} />
          </li>
        )}
        {formatLost.length > 0 && (
          <li className="effect-blocker">
            {counted(formatLost.length, 'frame')} {formatLost.length === 1 ? 'has' : 'have'} a format that is not taken
            any more ({[...new Set(formatLost.map(({ format }) => formatLabel[format as ImageFormat]))].join(', ')}).
            They are not delivered until another is chosen. <Which frames={formatLost} names={names} />
          </li>
        )}
        {piecesLost.length > 0 && (
          <li className="effect-blocker">
            {counted(piecesLost.length, 'frame')} {isAre(piecesLost.length)} cut into pieces that are not taken any
            more. <Which frames={piecesLost} names={names} />
          </li>
        )}
        {staying > 0 && (
          <li className="quiet">
            {counted(staying, 'frame')} of projects that stay on a version {staying === 1 ? 'stays' : 'stay'} as{' '}
            {staying === 1 ? 'it is' : 'they are'}.
          </li>
        )}
      </ul>
    </div>
  );
}

/** So many frames of a line are named. */
const mostNamed = 40;

/** Which frames a line is about, each as a way to the bench. */
function Which(props: {
  frames: readonly { frameId: string; projectId: string; originalId: string; placeId: string }[];
  names: ReadonlyMap<string, PlaceOfNetwork>;
}) {
  const { frames, names } = props;
  const { data: originals = [] } = useOriginals();
  return (
    <details className="effect-frames small">
      <summary>Which</summary>
      <ul>
        {frames.slice(0, mostNamed).map(({ frameId, projectId, originalId, placeId }) => (
          <li key={frameId}>
            <Link to={`/projects/${projectId}?original=${originalId}&frame=${frameId}`}>
              {names.get(placeId)?.place.name ?? placeId},{' '}
              {originals.find(({ id }) => id === originalId)?.name ?? 'a picture'}
            </Link>
          </li>
        ))}
        {frames.length > mostNamed && <li>and {frames.length - mostNamed} more</li>}
      </ul>
    </details>
  );
}

/** The longer side of a picture of a pair, in CSS pixels. */
const pairSide = 150;

/** Frames that get another shape: before and after, side by side. */
export function PairsWall(props: {
  pairs: readonly Reshaped[];
  count: number;
  /** As they are now, and as they are to be. */
  before: ReadonlyMap<string, PlaceOfNetwork>;
  after: ReadonlyMap<string, PlaceOfNetwork>;
}) {
  const { pairs, count, before, after } = props;
  const { data: originals = [] } = useOriginals();
  if (pairs.length === 0) return null;
  return (
    <section aria-label="Before and after">
      <h2>Before and after</h2>
      <p className="quiet small">
        {count > pairs.length ? `The first ${pairs.length} of ${count}. ` : ''}Both pictures of a pair are drawn at one
        scale.
      </p>
      <ul className="pairs">
        {pairs.map((pair) => {
          const original = originals.find(({ id }) => id === pair.originalId);
          const [then, now] = [before.get(pair.placeId), after.get(pair.placeId)];
          if (!original || !then || !now) return null;
          return <Pair key={pair.frameId} pair={pair} original={original} then={then} now={now} />;
        })}
      </ul>
    </section>
  );
}

function Pair(props: { pair: Reshaped; original: Original; then: PlaceOfNetwork; now: PlaceOfNetwork }) {
  const { pair, original, then, now } = props;
  const { before, after, isByHand } = pair;
  const longest = Math.max(...[before, after].flatMap(({ dimensions: { width, height } }) => [width, height]));
  const scale = pairSide / longest;
  const picture = ({ dimensions, window }: typeof before, place: PlaceOfNetwork['place']) => (
    <FramePicture
      frameId={pair.frameId}
      original={original}
      place={place}
      output={dimensions}
      window={window}
      settings={pair.settings}
      border={null}
      planHash={null}
      width={dimensions.width * scale}
    />
  );
  return (
    <li className="pair">
      <div className="pair-pictures">
        {picture(before, then.place)}
        {picture(after, now.place)}
      </div>
      <div className="small">
        <strong>{now.place.name}</strong> <span className="quiet">{original.name}</span>
        <br />
        {dimensionsWords(before.dimensions)} → {dimensionsWords(after.dimensions)} px
        {isByHand && <span className="effect-caution"> set by hand</span>}
      </div>
    </li>
  );
}
