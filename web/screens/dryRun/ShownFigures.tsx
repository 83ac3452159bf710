import { hardToRead, isCut } from '@inkwell/core/dryRunning';
import {
  type ComeBack,
  type DryRunFile,
  formatLabel,
  formatLimit,
  formatWeight,
  type ShownAt,
  standInNotice,
} from '@inkwell/core/model';
import { Button } from 'antd';
import { lostWords } from './outcomeWords.ts';

/** What was measured of a file that came back, or why it did not. */
export function ShownFigures(props: { file: DryRunFile; at: ShownAt | null; onWorst: (() => void) | null }) {
  const { file, at, onWorst } = props;
  const { line, outcome } = file;
  const piece = line.piece ? `, ${line.piece.number} of ${line.piece.of}` : '';
  return (
    <aside className="compare-panel shown-panel" aria-label="What came back">
      <h2>
        {line.network} · {line.place}
        {piece}
      </h2>
      <p className="quiet small">{line.original}</p>
      <p className="small">
        Delivered: {line.width} × {line.height} px, {formatLabel[line.format]},{' '}
        {formatWeight(line.bytes, line.limitUnit)}
      </p>
      {!outcome && <p className="quiet">It has not come to this file yet.</p>}
      {(outcome?.state === 'held back' || outcome?.state === 'not reached') && (
        <p className="run-problem">{outcome.why}</p>
      )}
      {outcome?.state === 'refused' && <Refusal file={file} />}
      {outcome?.state === 'shown' && <Back back={outcome.back} at={at} onWorst={onWorst} />}
      <p className="quiet small">{standInNotice}</p>
    </aside>
  );
}

function Refusal({ file: { line, outcome } }: { file: DryRunFile }) {
  if (outcome?.state !== 'refused') return null;
  const { refusal } = outcome;
  const { said, allowed, measured, rule, fix, isNews } = refusal;
  const book = refusal.code === 'too heavy' ? formatLimit({ bytes: line.limitBytes, unit: line.limitUnit }) : null;
  const rows = [
    ['The rule', rule],
    ['The network takes', allowed],
    ['It measured', measured],
    ['The spec book says', book],
  ] as const;
  return (
    <>
      <p className="run-problem">
        Refused. <q>{said}</q>
      </p>
      <table className="figures small">
        <tbody>
          {rows.map(
            ([name, value]) =>
              value && (
                <tr key={name}>
                  <th scope="row">{name}</th>
                  <td>{value}</td>
                </tr>
              ),
          )}
        </tbody>
      </table>
      <p>{fix}</p>
      {isNews && <p className="quiet small">The spec book did not know this. It is noted on the network’s sheet.</p>}
    </>
  );
}

function Back({ back, at, onWorst }: { back: ComeBack; at: ShownAt | null; onWorst: (() => void) | null }) {
  const { kept, lost, cut, seams, gap } = back;
  const lostWordsHere = at ? hardToRead(at.words) : [];
  return (
    <>
      <p className="small">
        Turned into: {kept.width} × {kept.height} px, {formatLabel[kept.format]}
        {kept.quality === null ? '' : ` ${kept.quality}`}
        {kept.chroma === null ? '' : `, ${kept.chroma}`}, {formatWeight(kept.bytes, 'MB')}
      </p>
      {isCut(lost) && (
        <p className="run-cut">
          <strong>Cut</strong> {lostWords(lost)}.
        </p>
      )}
      {cut.map(({ name, share, isMust }) => (
        <p key={name} className="run-cut">
          {name} {share >= 0.995 ? 'is gone' : `lost ${Math.max(1, Math.round(100 * share))} %`}
          {isMust ? ', and must be shown.' : '.'}
        </p>
      ))}
      {at ? (
        <table className="figures small">
          <caption>As shown {at.shownWidth} px wide</caption>
          <tbody>
            <Figure
              name="Similarity"
              title="What is left of the delivered file, scaled well to this width; 100 is all"
              value={at.similarity.toFixed(1)}
            />
            <tr>
              <th scope="row">At the worst spot</th>
              <td>
                {onWorst ? (
                  <>
                    <Button size="small" onClick={onWorst}>
                      Go there
                    </Button>{' '}
                    {at.worst.similarity.toFixed(1)}
                  </>
                ) : (
                  at.worst.similarity.toFixed(1)
                )}
              </td>
            </tr>
            <Figure
              name="Colour shift"
              title="CIEDE2000: from about 1 on it is seen side by side"
              value={`${at.colourShift.mean.toFixed(1)}, at most ${at.colourShift.most.toFixed(1)}`}
            />
            <Figure
              name="Halo"
              title="How far edges shoot over those of the delivered file, as a share of the contrast"
              value={`${(100 * at.halo).toFixed(1)} %`}
            />
            <Figure name="Picture" title="" value={`${at.width} × ${at.height} px, ${formatWeight(at.bytes, 'MB')}`} />
          </tbody>
        </table>
      ) : (
        <p className="quiet">The sheet does not say at which width this place is shown.</p>
      )}
      {gap !== null && <p className="small">Gaps between its tiles: {(100 * gap).toFixed(1)} % of a tile.</p>}
      {at && at.words.length > 0 && (
        <table className="figures small">
          <caption>Contrast of its words</caption>
          <thead>
            <tr>
              <th scope="col">Words</th>
              <th scope="col">Delivered</th>
              <th scope="col">Shown</th>
            </tr>
          </thead>
          <tbody>
            {at.words.map((one) => (
              <tr key={one.text} data-level={lostWordsHere.includes(one) ? 'caution' : undefined}>
                <th scope="row">{one.text}</th>
                <td>{one.delivered.toFixed(1)} : 1</td>
                <td>{one.shown.toFixed(1)} : 1</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {seams.length > 0 && (
        <table className="figures small">
          <caption>Step across its seams, in levels of 255</caption>
          <thead>
            <tr>
              <th scope="col">To piece</th>
              <th scope="col">Delivered</th>
              <th scope="col">Shown</th>
            </tr>
          </thead>
          <tbody>
            {seams.map(({ next, delivered, shown }) => (
              <tr key={next}>
                <th scope="row">{next + 1}</th>
                <td>{delivered.toFixed(1)}</td>
                <td>{shown.toFixed(1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function Figure({ name, title, value }: { name: string; title: string; value: string }) {
  return (
    <tr>
      <th scope="row" title={title}>
        {name}
      </th>
      <td>{value}</td>
    </tr>
  );
}
