import type { DryRun, DryRunFile } from '@inkwell/core/model';
import { runPictureUrl } from '../../api/projects/dryRuns.ts';
import { Empty } from '../../parts/States.tsx';
import { levelOf, outcomeWords } from './outcomeWords.ts';

/** Pictures on the wall have this height in CSS pixels, and are at most so wide. */
const height = 168;
const mostWidth = 340;

export type Side = 'shown' | 'delivered';

/** All files of a run, network by network: as they are shown, or as they were delivered, in the same places. */
export function RunWall(props: {
  run: DryRun;
  files: readonly DryRunFile[];
  side: Side;
  onOpen: (position: number) => void;
}) {
  const { run, files, side, onOpen } = props;
  const networks = new Map<string, DryRunFile[]>();
  for (const file of files) {
    const { network } = file.line;
    networks.set(network, [...(networks.get(network) ?? []), file]);
  }
  if (run.files.length > 0 && files.length === 0) {
    return <Empty title="Nothing to look at">Everything was taken, and nothing was cut.</Empty>;
  }
  return [...networks].map(([network, own]) => (
    <section key={network} className="run-network" aria-label={network}>
      <h3>{network}</h3>
      <ul className="run-wall">
        {own.map((file) => (
          <RunCard key={file.position} run={run} file={file} side={side} onOpen={() => onOpen(file.position)} />
        ))}
      </ul>
    </section>
  ));
}

function RunCard({ run, file, side, onOpen }: { run: DryRun; file: DryRunFile; side: Side; onOpen: () => void }) {
  const { line, outcome } = file;
  const width = Math.min(mostWidth, (height * line.width) / line.height);
  const level = levelOf(outcome);
  const words = outcomeWords(outcome);
  const piece = line.piece ? `, ${line.piece.number} of ${line.piece.of}` : '';
  return (
    <li className="run-card" data-level={level} data-state={outcome?.state ?? 'waiting'}>
      <button
        type="button"
        className="plain-button"
        aria-label={`${line.place}${piece}, ${line.original}: ${words}`}
        onClick={onOpen}
      >
        <span className="run-picture" style={{ width, height }}>
          <RunPicture run={run} file={file} side={side} width={width} />
        </span>
        <span className="run-place">
          {line.place}
          {piece}
        </span>
        <span className="quiet small run-original">{line.original}</span>
        <span className="small run-outcome">{words}</span>
      </button>
    </li>
  );
}

/** What came back, in small; or what was delivered. What did not come back is not drawn. */
function RunPicture({ run, file, side, width }: { run: DryRun; file: DryRunFile; side: Side; width: number }) {
  const { line, outcome } = file;
  const small = Math.ceil(2 * width);
  const delivered = <img alt="" src={runPictureUrl(run, line.sha256, small)} loading="lazy" />;
  if (side === 'delivered') return delivered;
  if (!outcome) return <span className="quiet small">waiting</span>;
  if (outcome.state !== 'shown') {
    return (
      <>
        <span className="run-not">{delivered}</span>
        <span className="run-not-word">{outcome.state === 'refused' ? 'Refused' : 'Not posted'}</span>
      </>
    );
  }
  const [shown] = outcome.back.shown;
  return <img alt="" src={runPictureUrl(run, shown?.sha256 ?? outcome.back.kept.sha256)} loading="lazy" />;
}
