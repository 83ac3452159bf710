import type { KeepMark, Mark, MarkKind, Proposal, ProposalKind } from '../model/index.ts';

const kindOf: Record<ProposalKind, MarkKind> = {
  face: 'face',
  person: 'subject',
  animal: 'subject',
  thing: 'subject',
  words: 'text',
  'stands out': 'subject',
};

/** A proposal as a mark that keeps it: what a person confirms has to be in every frame. */
export function keepMarkOf(proposal: Proposal, id: string, name: string): KeepMark {
  const { left, top, width, height, kind, look } = proposal;
  return {
    id,
    name,
    role: 'keep',
    priority: 'must',
    kind: kindOf[kind],
    look,
    shape: kind === 'face' ? 'ellipse' : 'rectangle',
    left,
    top,
    width,
    height,
  };
}

/** The same as a mark that stays out of frames. */
export function avoidMarkOf({ left, top, width, height }: Proposal, id: string, name: string): Mark {
  return { id, name, role: 'avoid', shape: 'rectangle', left, top, width, height };
}
