import { fileDimensions } from '@inkwell/core/geometry';
import type { VerdictWord } from '@inkwell/core/model';
import { sidesWords } from '@inkwell/core/model';
import { Button } from 'antd';
import { Link } from 'react-router';
import { useMay } from '../../api/access/workspaces.ts';
import { proofUrl } from '../../api/projects/frames.ts';
import { ArrivingPicture } from '../../parts/pictures/ArrivingPicture.tsx';
import { smallProof } from './FrameCell.tsx';
import type { OverviewFrame } from './overview.ts';

const buttons: { is: VerdictWord; label: string; key: string }[] = [
  { is: 'fine', label: 'Fine', key: 'F' },
  { is: 'look again', label: 'Look again', key: 'L' },
  { is: 'leave out', label: 'Leave out', key: 'X' },
];

/** In pixels of the proof, for a dense screen. */
const proofWidth = 640;

/** The frame that is looked at, large, with its findings and what can be said of it. */
export function ChosenFrame(props: {
  frame: OverviewFrame;
  /** Where the bench shows it. */
  bench: string;
  onJudge: (verdict: VerdictWord) => void;
}) {
  const { frame, bench, onJudge } = props;
  const { one, verdict, isOutdated } = frame;
  const { network, place } = one.at;
  const mayChange = useMay('editor');
  return (
    <section className="look-chosen" aria-label="The frame that is looked at">
      <div
        className="look-large"
        style={one.planHash ? { backgroundImage: `url(${smallProof(one, one.planHash)})` } : {}}
      >
        {one.planHash && (
          <ArrivingPicture
            key={one.frame.id}
            alt={`${one.original.name} at ${network.name} ${place.name}`}
            src={proofUrl(one.frame.id, one.planHash, proofWidth)}
            data-round={place.shape === 'circle'}
          />
        )}
      </div>
      <div className="look-words">
        <h2>{one.original.name}</h2>
        <p>
          {network.name}, {place.name}{' '}
          <span className="quiet small">{sidesWords(fileDimensions(place, one.original, one.frame))}</span>
        </p>
        {one.findings.length > 0 && (
          <ul className="look-findings small">
            {one.findings.map(({ level, text }) => (
              <li key={text}>
                <span className="finding-dot" data-level={level} />
                <span>{text}</span>
              </li>
            ))}
          </ul>
        )}
        {one.failure && <p className="failure-line small">{one.failure}</p>}
        {one.planHash === null && !one.failure && (
          <p className="quiet small">
            It is not drawn yet.{mayChange && ' As soon as it is, you can say what you think of it.'}
          </p>
        )}
        {isOutdated && <p className="quiet small">It has changed since somebody looked at it.</p>}
        <div className="row wrap look-buttons">
          {buttons.map(({ is, label, key }) => (
            <Button
              key={is}
              type={verdict === is ? 'primary' : 'default'}
              aria-pressed={verdict === is}
              aria-keyshortcuts={key}
              title={`${label} (${key})`}
              disabled={one.planHash === null || !mayChange}
              onClick={() => onJudge(is)}
            >
              {label}
            </Button>
          ))}
        </div>
        <p className="small">
          <Link to={bench}>Open it on the bench</Link>
        </p>
        <p className="quiet small keys-only">
          Arrow keys move.
          {mayChange && ' F, L and X say what you think of it and go on; the same key again takes that back.'} Enter
          opens the bench.
        </p>
      </div>
    </section>
  );
}
