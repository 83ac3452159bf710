import './ProposalTags.css';
import { rectToScreen, type Viewport } from '@inkwell/core/geometry';
import type { Dimensions, Proposal } from '@inkwell/core/model';
import { type Decision, named, ProposalTag } from './ProposalTag.tsx';

const tagHeight = 16;
/** The tools lie over the upper edge of the stage. */
const toolsHeight = 38;

/** Dotted outlines round what was seen in an original. A mouse finds a tag at each; for fingers the tags are below the stage. */
export function ProposalTags(props: {
  view: Viewport;
  original: Dimensions;
  proposals: readonly Proposal[];
  onDecide: (proposal: Proposal, decision: Decision) => void;
}) {
  const { view, original, proposals, onDecide } = props;
  const stageWidth = 2 * view.offset.x + original.width * view.scale;
  return named(proposals).map(({ proposal, name, key }) => {
    const { left, top, width, height } = rectToScreen(view, proposal);
    return (
      <div key={key} className="proposal" style={{ left, top, width, height }}>
        <ProposalTag
          proposal={proposal}
          name={name}
          onDecide={onDecide}
          // Near the right edge it grows to the left; near the upper one it lies within, under the tools.
          style={{
            ...(left > stageWidth / 2 ? { right: -2 } : { left: -2 }),
            ...(top < toolsHeight + tagHeight ? { top: Math.max(0, toolsHeight - top) } : { bottom: '100%' }),
          }}
        />
      </div>
    );
  });
}
