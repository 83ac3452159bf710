import { CheckOutlined, ReloadOutlined, StopOutlined } from '@ant-design/icons';
import type { VerdictWord } from '@inkwell/core/model';
import type { ReactNode } from 'react';
import { proofUrl } from '../../api/projects/frames.ts';
import { ArrivingPicture } from '../../parts/pictures/ArrivingPicture.tsx';
import type { ProjectFrame } from '../projectFrames.ts';
import type { OverviewFrame } from './overview.ts';

/** Of the proofs in the overview: those that the table of files has as well. */
const proofWidth = 128;

/** The proof of a frame in the overview. */
export const smallProof = ({ frame }: ProjectFrame, planHash: string): string =>
  proofUrl(frame.id, planHash, proofWidth);

const verdictSigns: Record<VerdictWord, ReactNode> = {
  fine: <CheckOutlined />,
  'look again': <ReloadOutlined />,
  'leave out': <StopOutlined />,
};

/** What a cell says to who does not see it. */
const wordsOf = ({ one, verdict, isOutdated }: OverviewFrame): string =>
  [
    one.original.name,
    `${one.at.network.name} ${one.at.place.name}`,
    verdict ?? (isOutdated ? 'changed since it was looked at' : one.planHash ? 'not looked at' : 'not drawn yet'),
    ...one.findings.map(({ text }) => text),
  ].join(', ');

/** One frame in small, with its findings as a dot and what was said of it as a sign. */
export function FrameCell(props: {
  id: string;
  column: number;
  left: number;
  side: number;
  frame: OverviewFrame | null;
  isChosen: boolean;
  isFaint: boolean;
  onChoose: () => void;
  onOpen: () => void;
}) {
  const { id, column, left, side, frame, isChosen, isFaint, onChoose, onOpen } = props;
  const style = { left, width: side };
  if (!frame) {
    return (
      <td id={id} aria-colindex={column} className="look-cell" style={style}>
        <span className="visually-hidden">No frame</span>
      </td>
    );
  }
  const { one, verdict, worst } = frame;
  return (
    // Keys go to the whole overview, which says which of its cells is chosen.
    <td
      // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a cell of a grid is chosen.
      role="gridcell"
      tabIndex={-1}
      id={id}
      aria-colindex={column}
      aria-selected={isChosen}
      aria-label={wordsOf(frame)}
      className="look-cell"
      data-verdict={verdict ?? 'none'}
      data-faint={isFaint}
      data-frame={one.frame.id}
      style={style}
      onMouseDown={(event) => {
        event.preventDefault();
        onChoose();
      }}
      onDoubleClick={onOpen}
    >
      {one.planHash === null ? (
        <span className="look-waiting" />
      ) : (
        <ArrivingPicture
          alt=""
          decoding="async"
          draggable={false}
          src={smallProof(one, one.planHash)}
          data-round={one.at.place.shape === 'circle'}
        />
      )}
      {worst && <span className="finding-dot look-dot" data-level={worst} />}
      {verdict && <span className="look-sign">{verdictSigns[verdict]}</span>}
    </td>
  );
}
