import './ProposalTags.css';
import { CheckOutlined, CloseOutlined, StopOutlined } from '@ant-design/icons';
import { rectToScreen, type Viewport } from '@inkwell/core/geometry';
import type { Proposal } from '@inkwell/core/model';

/** What a person says of a proposal. */
export type Decision = 'keep' | 'avoid' | 'dismiss';

const tagHeight = 24;

const decisions = [
  { decision: 'keep', label: 'Keep', title: 'Keep it in every frame', icon: <CheckOutlined /> },
  { decision: 'avoid', label: 'Avoid', title: 'Keep it out of frames', icon: <StopOutlined /> },
  { decision: 'dismiss', label: 'Dismiss', title: 'Do not propose it again', icon: <CloseOutlined /> },
] as const;

/** Dotted outlines round what was seen in an original, each with what it is, how sure that is, and what can be said of it. */
export function ProposalTags(props: {
  view: Viewport;
  proposals: readonly Proposal[];
  onDecide: (proposal: Proposal, decision: Decision) => void;
}) {
  const { view, proposals, onDecide } = props;
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
        // What reaches to the top of the stage has its tag within.
        data-tag={top < tagHeight ? 'within' : 'above'}
        style={{ left, top, width, height }}
      >
        {/* biome-ignore lint/a11y/useSemanticElements: a fieldset does not float over a picture. */}
        <div className="proposal-tag" role="group" aria-label={`Seen: ${named}, ${one.sureness}`}>
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
