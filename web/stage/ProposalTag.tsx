import { CheckOutlined, CloseOutlined, StopOutlined } from '@ant-design/icons';
import type { Proposal } from '@inkwell/core/model';
import type { CSSProperties } from 'react';

/** What a person says of a proposal. */
export type Decision = 'keep' | 'avoid' | 'dismiss';

const decisions = [
  { decision: 'keep', label: 'Keep', title: 'Keep it in every frame', icon: <CheckOutlined /> },
  { decision: 'avoid', label: 'Avoid', title: 'Keep it out of frames', icon: <StopOutlined /> },
  { decision: 'dismiss', label: 'Dismiss', title: 'Do not propose it again', icon: <CloseOutlined /> },
] as const;

/** Proposals with a name of their own each: "face", "face 2". */
export function named(proposals: readonly Proposal[]): { proposal: Proposal; name: string; key: string }[] {
  const counts = new Map<string, number>();
  return proposals.map((proposal) => {
    const count = (counts.get(proposal.name) ?? 0) + 1;
    counts.set(proposal.name, count);
    const { kind, left, top, width } = proposal;
    return {
      proposal,
      name: count === 1 ? proposal.name : `${proposal.name} ${count}`,
      key: `${kind} ${left} ${top} ${width}`,
    };
  });
}

/** What something that was seen is, how sure that is, and what can be said of it, each in one press. */
export function ProposalTag(props: {
  proposal: Proposal;
  name: string;
  style?: CSSProperties;
  onDecide: (proposal: Proposal, decision: Decision) => void;
}) {
  const { proposal, name, style, onDecide } = props;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset does not float over a picture.
    <div className="proposal-tag" role="group" aria-label={`Seen: ${name}, ${proposal.sureness}`} style={style}>
      <span>
        {proposal.name}, {proposal.sureness}
      </span>
      {decisions.map(({ decision, label, title, icon }) => (
        <button
          key={decision}
          type="button"
          className="plain-button"
          aria-label={`${label} ${name}`}
          title={title}
          onClick={() => onDecide(proposal, decision)}
        >
          {icon}
        </button>
      ))}
    </div>
  );
}
