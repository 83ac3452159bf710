import './ProposalTags.css';
import { CheckOutlined, CloseOutlined, StopOutlined } from '@ant-design/icons';
import { rectToScreen, type Viewport } from '@inkwell/core/geometry';
import type { Dimensions, Proposal } from '@inkwell/core/model';

/** What a person says of a proposal. */
export type Decision = 'keep' | 'avoid' | 'dismiss';

const tagHeight = 16;
/** The tools lie over the upper edge of the stage. */
const toolsHeight = 38;

const decisions = [
  { decision: 'keep', label: 'Keep', title: 'Keep it in every frame', icon: <CheckOutlined /> },
  { decision: 'avoid', label: 'Avoid', title: 'Keep it out of frames', icon: <StopOutlined /> },
  { decision: 'dismiss', label: 'Dismiss', title: 'Do not propose it again', icon: <CloseOutlined /> },
] as const;

/** Dotted outlines round what was seen in an original, each with what it is, how sure that is, and what can be said of it. */
export function ProposalTags(props: {
  view: Viewport;
  original: Dimensions;
  proposals: readonly Proposal[];
  onDecide: (proposal: Proposal, decision: Decision) => void;
}) {
  const { view, original, proposals, onDecide } = props;
  const stageWidth = 2 * view.offset.x + original.width * view.scale;
  const counts = new Map<string, number>();
  return proposals.map((one) => {
    const { left, top, width, height } = rectToScreen(view, one);
    const count = (counts.get(one.name) ?? 0) + 1;
    counts.set(one.name, count);
    const named = count === 1 ? one.name : `${one.name} ${count}`;
    return (
      <div
        key={`${one.kind} ${one.left} ${one.top} ${one.width}`}
        className="proposal"
        style={{ left, top, width, height }}
      >
        {/* biome-ignore lint/a11y/useSemanticElements: a fieldset does not float over a picture. */}
        <div
          className="proposal-tag"
          role="group"
          aria-label={`Seen: ${named}, ${one.sureness}`}
          // Near the right edge it grows to the left; near the upper one it lies within, under the tools.
          style={{
            ...(left > stageWidth / 2 ? { right: -2 } : { left: -2 }),
            ...(top < toolsHeight + tagHeight ? { top: Math.max(0, toolsHeight - top) } : { bottom: '100%' }),
          }}
        >
          <span className="proposal-name">
            {one.name}, {one.sureness}
          </span>
          {decisions.map(({ decision, label, title, icon }) => (
            <button
              key={decision}
              type="button"
              className="plain-button"
              aria-label={`${label} ${named}`}
              title={title}
              onClick={() => onDecide(one, decision)}
            >
              {icon}
            </button>
          ))}
        </div>
      </div>
    );
  });
}
